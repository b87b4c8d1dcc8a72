"use client";
import { areCounted } from "@/core/catalogue/questions";
import { workPlaceWords } from "@/core/visits/work-place";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { imageAddress } from "@/ui/images";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { Business } from "./data";
import { type BookableService } from "./draft";

/** Work of several days is booked once, and what its questions count is not counted twice. */
export const mayTakeSeveral = (service: BookableService): boolean =>
  service.days === 1 && !areCounted(service.ordered.questions);

/** The price as the owner shows it before one chooses. */
const priceShown = (service: BookableService, currency: string): string =>
  service.priceKind === "quote"
    ? "on quote"
    : !service.showsPrice
      ? ""
      : `${service.priceKind === "from" ? "from " : ""}${moneyWords(service.totalMinor, currency)}`;

export function ServiceCard({
  service,
  on,
  business,
  onChoose,
}: {
  service: BookableService;
  on: boolean;
  business: Business;
  onChoose: () => void;
}) {
  const facts = [
    workPlaceWords[service.workPlace].customer,
    service.seats > 0 && `with up to ${service.seats} people`,
    service.showsMinutes &&
      (service.days > 1 ? `${service.days} days of ${durationWords(service.minutes)}` : durationWords(service.minutes)),
    service.showsPrice &&
      service.lines.length > 1 &&
      `with ${service.lines
        .slice(1)
        .map((l) => `${l.description.toLowerCase()} ${moneyWords(l.amountMinor, business.currency)}`)
        .join(", ")}`,
    service.depositMinor > 0 && `deposit ${moneyWords(service.depositMinor, business.currency)}`,
  ]
    .filter(Boolean)
    .join(", ");
  return (
    <ButtonBase
      role="checkbox"
      aria-checked={on}
      onClick={onChoose}
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "flex-start",
        gap: 3,
        width: "100%",
        textAlign: "left",
        p: 3,
        mb: 2,
        bgcolor: on ? ink.plaster : "#fff",
        border: `${on ? 2 : 1}px solid ${on ? ink.accent : ink.line}`,
        borderRadius: "6px",
        fontSize: 17,
      }}
    >
      <Box
        aria-hidden="true"
        sx={{
          width: 20,
          height: 22,
          mt: 0.5,
          flex: "none",
          borderRadius: "10px 10px 3px 3px",
          border: `1.5px solid ${on ? ink.accent : ink.ash}`,
          bgcolor: on ? ink.accent : "#fff",
          color: ink.paper,
          fontSize: 14,
          lineHeight: "20px",
          textAlign: "center",
        }}
      >
        {on ? "✓" : ""}
      </Box>
      {service.picture && (
        <Box
          component="img"
          src={imageAddress(service.picture)}
          alt=""
          sx={{
            width: "clamp(44px, 18vw, 72px)",
            aspectRatio: "1",
            objectFit: "cover",
            borderRadius: arch,
            flex: "none",
          }}
        />
      )}
      <Box sx={{ flex: "1 0 min(100%, 140px)", minWidth: 0 }}>
        <Box sx={{ display: "flex", flexWrap: "wrap", justifyContent: "space-between", columnGap: 3, fontWeight: 650 }}>
          <span>{service.name}</span>
          <Box component="span">{priceShown(service, business.currency)}</Box>
        </Box>
        <Box sx={{ color: ink.ash, fontSize: 15, mt: 0.5 }}>{service.description}</Box>
        <Box sx={{ color: ink.ash, fontSize: 15, mt: 0.5 }}>{facts}</Box>
      </Box>
    </ButtonBase>
  );
}

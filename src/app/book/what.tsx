"use client";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { groupBy } from "@/core/group";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { imageAddress } from "@/ui/image-field";
import { arch, ink } from "@/ui/palette";
import type { BookableService, ServicesAt } from "./draft";
import type { Business } from "./front-door";

/** The price as the owner shows it before one chooses. */
const priceShown = (service: BookableService, currency: string): string =>
  service.priceKind === "quote" ? "on quote" : !service.showsPrice ? "" : `${service.priceKind === "from" ? "from " : ""}${moneyWords(service.totalMinor, currency)}`;

export function What({ at, chosen, business, onChoose, children }: { at: ServicesAt; chosen: number | null; business: Business; onChoose: (id: number) => void; children: ReactNode }) {
  return (
    <Box role="radiogroup" aria-label="Service">
      {[...groupBy(at.services, (s) => s.category)].map(([category, services]) => (
        <Box key={category} sx={{ mt: 4 }}>
          <Typography variant="h3" component="h2" sx={{ fontSize: 17, mb: 1 }}>{category}</Typography>
          {services.map((service) => {
            const on = service.id === chosen;
            return (
              <Box key={service.id}>
              <ButtonBase role="radio" aria-checked={on} onClick={() => onChoose(service.id)}
                sx={{ display: "block", width: "100%", textAlign: "left", p: 3, mb: 2, bgcolor: on ? ink.plaster : "#fff", border: `${on ? 2 : 1}px solid ${on ? ink.pine : ink.line}`, borderRadius: "6px", fontSize: 17 }}>
                <Box sx={{ display: "flex", gap: 3 }}>
                {service.picture && <Box component="img" src={imageAddress(service.picture)} alt="" sx={{ width: 72, height: 72, objectFit: "cover", borderRadius: arch, flex: "none" }} />}
                <Box sx={{ flex: 1, minWidth: 0 }}>
                <Box sx={{ display: "flex", justifyContent: "space-between", gap: 3, fontWeight: 650 }}>
                  <span>{service.name}</span>
                  <Box component="span" sx={{ whiteSpace: "nowrap" }}>{priceShown(service, business.currency)}</Box>
                </Box>
                <Box sx={{ color: ink.ash, fontSize: 15, mt: 0.5 }}>{service.description}</Box>
                <Box sx={{ color: ink.ash, fontSize: 15, mt: 0.5 }}>
                  {[
                    service.showsMinutes && (service.days > 1 ? `${service.days} days of ${durationWords(service.minutes)}` : durationWords(service.minutes)),
                    service.showsPrice && service.lines.length > 1 && `with ${service.lines.slice(1).map((l) => `${l.description.toLowerCase()} ${moneyWords(l.amountMinor, business.currency)}`).join(", ")}`,
                    service.depositMinor > 0 && `deposit ${moneyWords(service.depositMinor, business.currency)}`,
                  ].filter(Boolean).join(", ")}
                </Box>
                </Box>
                </Box>
              </ButtonBase>
              {on && children}
              </Box>
            );
          })}
        </Box>
      ))}
    </Box>
  );
}

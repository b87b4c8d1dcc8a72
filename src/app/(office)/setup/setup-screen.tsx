"use client";
import { moneyWords } from "@/core/money/amounts";
import { roles } from "@/core/people/permissions";
import { durationWords, weekdaysWords } from "@/core/time/words";
import { Code } from "@/ui/arch";
import { download } from "@/ui/download";
import { useShown } from "@/ui/live";
import { hues, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Skeleton from "@mui/material/Skeleton";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import type { Entry, SetupData } from "./data";
import { Entries } from "./entries";
import { NothingOpen } from "./nothing-open";
import type { PartPath } from "./parts";
import { PartsRail } from "./parts-rail";

// Each part brings its own form: nobody needs all of them. Not made in the server: what is seen can be clicked.
const loading = () => <Skeleton variant="rounded" height={320} />;

const BusinessForm = dynamic(() => import("./business/business-form").then((m) => m.BusinessForm), {
  loading,
  ssr: false,
});

const HoursForm = dynamic(() => import("./business/hours-form").then((m) => m.HoursForm), { loading, ssr: false });

const FrontDoorForm = dynamic(() => import("./front-door/front-door-form").then((m) => m.FrontDoorForm), {
  loading,
  ssr: false,
});

const Sharing = dynamic(() => import("./front-door/sharing").then((m) => m.Sharing), { loading, ssr: false });

const CouponForm = dynamic(() => import("./services/coupon-form").then((m) => m.CouponForm), { loading, ssr: false });

const ExtraForm = dynamic(() => import("./services/extra-form").then((m) => m.ExtraForm), { loading, ssr: false });

const OrderForm = dynamic(() => import("./services/order-form").then((m) => m.OrderForm), { loading, ssr: false });

const PatternForm = dynamic(() => import("./services/pattern-form").then((m) => m.PatternForm), {
  loading,
  ssr: false,
});

const PricesForm = dynamic(() => import("./services/prices-form").then((m) => m.PricesForm), { loading, ssr: false });

const ServiceForm = dynamic(() => import("./services/service-form").then((m) => m.ServiceForm), {
  loading,
  ssr: false,
});

const PersonForm = dynamic(() => import("./team/person-form").then((m) => m.PersonForm), { loading, ssr: false });

const SecurityForm = dynamic(() => import("./team/security-form").then((m) => m.SecurityForm), { loading, ssr: false });

const TechnicianForm = dynamic(() => import("./team/technician-form").then((m) => m.TechnicianForm), {
  loading,
  ssr: false,
});

const MessageRules = dynamic(() => import("./messages/rules-form").then((m) => m.RulesForm), { loading, ssr: false });

const Occasions = dynamic(() => import("./messages/occasions").then((m) => m.Occasions), { loading, ssr: false });

const Senders = dynamic(() => import("./messages/senders").then((m) => m.Senders), { loading, ssr: false });

const ReviewsForm = dynamic(() => import("./messages/reviews-form").then((m) => m.ReviewsForm), {
  loading,
  ssr: false,
});

const LoyaltyForm = dynamic(() => import("./services/loyalty-form").then((m) => m.LoyaltyForm), {
  loading,
  ssr: false,
});

const RulesForm = dynamic(() => import("./windows/rules-form").then((m) => m.RulesForm), { loading, ssr: false });

const ZonesScreen = dynamic(() => import("./zones/zones-screen").then((m) => m.ZonesScreen), { loading, ssr: false });

/** Parts at the left, what there is of one in the middle, its form at the right. */
export function SetupScreen({ part, id }: { part: PartPath; id: string | null }) {
  const data = useShown("setup", { part, id });
  const router = useRouter();
  const entries = entriesOf(part, data);
  const saved = (savedId?: number) => {
    if (savedId) router.push(`/setup/${part}?id=${savedId}`);
  };
  // Some forms need the room: a try-out or a preview stands beside them.
  const narrow = part === "services" && id !== null && id !== "order";
  const wide =
    part === "services" || part === "windows" || part === "zones" || part === "front-door" || part === "occasions";
  return (
    <Box sx={{ display: "flex", flex: 1, borderTop: `1px solid ${ink.line}`, minHeight: 0 }}>
      <PartsRail here={part} />
      {entries && <Entries part={part} entries={entries} id={id} narrow={narrow} onExport={exportOf(part, data)} />}
      <Box sx={{ flex: 1, minWidth: 0, p: 6, maxWidth: wide ? 1200 : 880 }}>
        <Form part={part} data={data} id={id} saved={saved} />
      </Box>
    </Box>
  );
}

/** The services or extras as a file, whole. */
function exportOf(part: PartPath, { services, extras, currency }: SetupData): (() => void) | null {
  if (part === "services")
    return () =>
      void import("@/core/catalogue/csv").then((csv) =>
        download("services.csv", "text/csv", csv.servicesCsv(services, currency)),
      );
  if (part === "extras")
    return () =>
      void import("@/core/catalogue/csv").then((csv) =>
        download("extras.csv", "text/csv", csv.extrasCsv(extras, currency)),
      );
  return null;
}

function Form({
  part,
  data,
  id,
  saved,
}: {
  part: PartPath;
  data: SetupData;
  id: string | null;
  saved: (id?: number) => void;
}) {
  const of = <T extends { id: number }>(rows: T[]) => rows.find((row) => String(row.id) === id) ?? null;
  const done = () => saved();
  switch (part) {
    case "business":
      return <BusinessForm data={data} saved={done} />;
    case "hours":
      return <HoursForm data={data} saved={done} />;
    case "security":
      return <SecurityForm data={data} saved={done} />;
    case "windows":
      return <RulesForm data={data} saved={done} />;
    case "prices":
      return <PricesForm data={data} saved={done} />;
    case "front-door":
      return <FrontDoorForm data={data} saved={done} />;
    case "messages":
      return <MessageRules />;
    case "occasions":
      return <Occasions id={id} />;
    case "reviews":
      return <ReviewsForm />;
    case "loyalty":
      return <LoyaltyForm />;
    case "senders":
      return <Senders />;
    case "sharing":
      return <Sharing services={data.services.filter((s) => s.active && s.slug)} />;
    case "zones":
      return <ZonesScreen key={id} data={data} id={id} saved={saved} />;
  }
  if (id === null) return <NothingOpen part={part} data={data} />;
  switch (part) {
    case "technicians":
      return (
        <TechnicianForm
          key={id}
          technician={of([...data.technicians, ...data.formerTechnicians])}
          data={data}
          saved={saved}
        />
      );
    case "services":
      return id === "order" ? (
        <OrderForm data={data} saved={done} />
      ) : (
        <ServiceForm key={id} service={of(data.services)} data={data} saved={saved} />
      );
    case "coupons":
      return <CouponForm key={id} coupon={of(data.coupons)} data={data} saved={saved} />;
    case "extras":
      return <ExtraForm key={id} extra={of(data.extras)} data={data} saved={saved} />;
    case "job-patterns":
      return <PatternForm key={id} pattern={of(data.jobPatterns)} data={data} saved={saved} />;
    case "people":
      return <PersonForm key={id} person={of(data.people)} data={data} saved={saved} />;
  }
}

function entriesOf(part: PartPath, data: SetupData): Entry[] | null {
  const amount = (minor: number) => moneyWords(minor, data.currency);
  switch (part) {
    case "zones":
      return data.zones.map((z) => ({
        id: z.id,
        name: z.name,
        detail: [
          [z.area && "drawn", ...z.postcodes.slice(0, 3), ...z.towns.slice(0, 2)].filter(Boolean).join(", "),
          weekdaysWords(z.weekdays),
          z.surchargeMinor ? `+${amount(z.surchargeMinor)}` : "",
        ]
          .filter(Boolean)
          .join(" · "),
      }));
    case "technicians":
      return [...data.technicians, ...data.formerTechnicians].map((t) => ({
        id: t.id,
        name: t.name,
        sign: (
          <Box
            component="span"
            aria-hidden
            sx={{
              display: "inline-block",
              width: 11,
              height: 13,
              borderRadius: "6px 6px 2px 2px",
              bgcolor: hues[t.hue],
              mr: 1,
            }}
          />
        ),
        detail: t.active
          ? [
              t.kind === "subcontractor" ? "subcontractor" : "",
              t.skills.map((s) => s.name).join(" · ") || "no skills yet",
            ]
              .filter(Boolean)
              .join(" · ")
          : "has left",
      }));
    case "services":
      return data.services.map((s) => ({
        id: s.id,
        name: s.name,
        sign: <Code code={s.code} colour={hues[s.hue]!} />,
        detail: [
          s.priceKind === "quote" ? "on quote" : `${s.priceKind === "from" ? "from " : ""}${amount(s.priceMinor)}`,
          durationWords(s.minutes),
          s.active ? (s.hidden ? "hidden" : "") : "archived",
        ]
          .filter(Boolean)
          .join(" · "),
      }));
    case "coupons":
      return data.coupons.map((c) => ({
        id: c.id,
        name: c.code,
        detail: [
          c.kind === "percent" ? `${c.value / 100}% off` : `${amount(c.value)} off`,
          `used ${c.used}${c.most === null ? "" : ` of ${c.most}`}`,
          c.active ? "" : "archived",
        ]
          .filter(Boolean)
          .join(" · "),
      }));
    case "extras":
      return data.extras.map((x) => ({
        id: x.id,
        name: x.name,
        detail: `${amount(x.priceMinor)} a ${x.unit}${x.active ? "" : " · archived"}`,
      }));
    case "job-patterns":
      return data.jobPatterns.map((p) => ({
        id: p.id,
        name: p.name,
        detail: [
          p.items.map(({ serviceId }) => data.services.find((s) => s.id === serviceId)?.name ?? "").join(" + "),
          p.minutes === null ? "" : durationWords(p.minutes),
          p.active ? "" : "archived",
        ]
          .filter(Boolean)
          .join(" · "),
      }));
    case "people":
      return data.people.map((p) => ({
        id: p.id,
        name: p.name,
        detail: `${roles[p.role].name}${data.incomingPersonId === p.id ? " · incoming" : ""} · ${p.mail}${p.active ? "" : " · may not sign in"}`,
      }));
    default:
      return null;
  }
}

"use client";
import { type Item, justOne } from "@/core/catalogue/items";
import { depositWhere, type Extra, type OrderedService, type PricedOrder, priceOrder } from "@/core/catalogue/order";
import { Counter, OrderForm } from "@/ui/order-form";
import { ink } from "@/ui/palette";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import FormHelperText from "@mui/material/FormHelperText";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { SetupData } from "../data";

type Service = SetupData["services"][number];

/** A service as core prices it. */
function ordered(service: Service, data: SetupData): OrderedService {
  const extras = service.extras.flatMap(({ id, most }): Extra[] => {
    const extra = data.extras.find((x) => x.id === id);
    return extra ? [{ ...extra, id: String(id), most }] : [];
  });
  return {
    id: service.id,
    name: service.name,
    priceMinor: service.priceMinor,
    taxBp: service.taxBp,
    deposit: depositWhere(service.deposit.kind, service.deposit.value),
    minutes: service.minutes,
    seats: service.seats,
    crew: service.crew,
    skills: service.skills.map((s) => ({ skill: s.name, level: s.level })),
    questions: service.questions,
    extras,
  };
}

/** What a piece of work costs and takes by the catalogue; null while nothing is chosen. */
export function orderOf(items: readonly Item[], data: SetupData): PricedOrder | null {
  const known = items.flatMap(({ serviceId, ...item }) => {
    const service = data.services.find(({ id }) => id === serviceId);
    return service ? [{ ...item, service: ordered(service, data) }] : [];
  });
  return known.length
    ? priceOrder({
        items: known.map((item) => ({
          ...item,
          extras: item.extras.map(({ id, quantity }) => ({ id: String(id), quantity })),
        })),
        zone: { name: "", surchargeMinor: 0, smallestOrderMinor: 0 },
        pricesIncludeTax: data.pricesIncludeTax,
      })
    : null;
}

/** Services with how many of each, what is answered and what is added. */
export function WorkField({
  items,
  data,
  onItems,
  wrong,
}: {
  items: Item[];
  data: SetupData;
  onItems: (items: Item[]) => void;
  wrong: (path: string) => string | undefined;
}) {
  const set = (at: number, change: Partial<Item>) =>
    onItems(items.map((item, i) => (i === at ? { ...item, ...change } : item)));
  // What is booked seat by seat or takes several days belongs to no pattern.
  const free = data.services.filter(
    ({ id, active, seats, days }) =>
      active && seats === 0 && days === 1 && !items.some((item) => item.serviceId === id),
  );
  return (
    <>
      {items.map((item, at) => {
        const service = data.services.find(({ id }) => id === item.serviceId);
        const { questions, extras } = service ? ordered(service, data) : { questions: [], extras: [] };
        return (
          <Box
            key={item.serviceId}
            role="group"
            aria-label={service?.name}
            sx={{ borderTop: `1px solid ${ink.line}`, pt: 3, display: "grid", gap: 3 }}
          >
            <Box sx={{ display: "flex", alignItems: "center", gap: 3 }}>
              <Box sx={{ flex: 1, fontWeight: 650 }}>{service?.name ?? "A service that is not there any more"}</Box>
              <Counter
                value={item.quantity}
                min={1}
                max={99}
                onValue={(quantity) => set(at, { quantity })}
                what={service?.name ?? "service"}
              />
              <IconButton
                aria-label={`Remove ${service?.name}`}
                onClick={() => onItems(items.filter((_, i) => i !== at))}
              >
                <Close fontSize="small" />
              </IconButton>
            </Box>
            {wrong(`/items/${at}/serviceId`) && (
              <FormHelperText error role="alert">
                {wrong(`/items/${at}/serviceId`)}
              </FormHelperText>
            )}
            {(questions.length > 0 || extras.length > 0) && (
              <OrderForm
                questions={questions}
                extras={extras}
                answers={item.answers}
                chosen={item.extras}
                currency={data.currency}
                problems={{}}
                onAnswers={(answers) => set(at, { answers })}
                onChosen={(chosen) => set(at, { extras: chosen })}
              />
            )}
          </Box>
        );
      })}
      <TextField
        select
        label={items.length ? "Another service" : "Service"}
        value=""
        onChange={(e) => onItems([...items, justOne(Number(e.target.value))])}
        error={!!wrong("/items")}
        helperText={wrong("/items") && "Choose at least one service."}
      >
        {free.map((service) => (
          <MenuItem key={service.id} value={service.id}>
            {service.name}
          </MenuItem>
        ))}
      </TextField>
    </>
  );
}

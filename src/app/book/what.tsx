"use client";
import { goesWith } from "@/core/catalogue/baskets";
import type { PricedOrder } from "@/core/catalogue/order";
import { groupBy } from "@/core/group";
import { commonRepeats, type RepeatEvery, everyWords } from "@/core/repeats/rule";
import { Counter, OrderForm, Pick } from "@/ui/order-form";
import { ink } from "@/ui/palette";
import { PhotoField } from "@/ui/photo-field";
import Box from "@mui/material/Box";
import FormHelperText from "@mui/material/FormHelperText";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Business, ServicesAt } from "./data";
import {
  type BookableService,
  type Chosen,
  type Draft,
  type DraftItem,
  photoPlace,
  photosOfOrder,
  wishable,
} from "./draft";
import type { ChangeDraft } from "./use-draft";
import { mayTakeSeveral, ServiceCard } from "./service-card";
import { Wish } from "./wish";

interface WhatProps {
  draft: Draft;
  chosen: readonly Chosen[];
  at: ServicesAt;
  order: PricedOrder | null;
  /** Whether somebody has tried to go on: then what is missing is said. */
  tried: boolean;
  business: Business;
  wrong: (pointer: string) => string | undefined;
  onType: (part: ChangeDraft) => void;
}

/** Services by category; each that is chosen opens its questions. Below, what counts for all of it. */
export function What({ draft, chosen, at, order, tried, business, wrong, onType }: WhatProps) {
  // Booked alone: work of several days, and a seat.
  const long = chosen.some(({ service }) => service.days > 1 || service.seats > 0);
  const choose = (service: BookableService) => {
    const has = draft.items.some((item) => item.serviceId === service.id);
    const fresh: DraftItem = { serviceId: service.id, quantity: 1, answers: {}, extras: [] };
    const others = goesWith(service, chosen) ? draft.items : [];
    onType({
      items: has ? draft.items.filter((item) => item.serviceId !== service.id) : [...others, fresh],
      technicianId: null,
      coupon: null,
      repeat: null,
    });
  };
  const setItem = (serviceId: number, part: Partial<DraftItem>) =>
    onType((now) => ({
      items: now.items.map((item) => (item.serviceId === serviceId ? { ...item, ...part } : item)),
    }));
  return (
    <>
      {[...groupBy(at.services, (s) => s.category)].map(([category, services]) => (
        <Box key={category} role="group" aria-label={category} sx={{ mt: 4 }}>
          <Typography variant="h3" component="h2" sx={{ fontSize: 17, mb: 1 }}>
            {category}
          </Typography>
          {services.map((service) => {
            const place = chosen.findIndex((item) => item.serviceId === service.id);
            const item = chosen[place];
            return (
              <Box key={service.id}>
                <ServiceCard service={service} on={!!item} business={business} onChoose={() => choose(service)} />
                {item &&
                  (mayTakeSeveral(service) ||
                    service.ordered.questions.length > 0 ||
                    service.ordered.extras.length > 0) && (
                    <Box
                      sx={{
                        px: 3,
                        py: 4,
                        mb: 3,
                        bgcolor: "#fff",
                        border: `1px solid ${ink.line}`,
                        borderRadius: "6px",
                        display: "grid",
                        gridTemplateColumns: "minmax(0, 1fr)",
                        gap: 4,
                      }}
                    >
                      {(service.ordered.questions.length > 0 || service.ordered.extras.length > 0) && (
                        <OrderForm
                          questions={service.ordered.questions}
                          extras={service.ordered.extras}
                          answers={item.answers}
                          chosen={item.extras}
                          currency={business.currency}
                          problems={tried ? (order?.items[place]?.problems ?? {}) : {}}
                          photoPlace={(questionId) => photoPlace(service.id, questionId)}
                          onAnswers={(answers) => setItem(service.id, { answers })}
                          onChosen={(extras) => setItem(service.id, { extras })}
                        />
                      )}
                      {mayTakeSeveral(service) && (
                        <Box
                          role="group"
                          aria-label={`How many of ${service.name}`}
                          sx={{
                            display: "flex",
                            flexWrap: "wrap",
                            alignItems: "center",
                            justifyContent: "space-between",
                            gap: 2,
                          }}
                        >
                          <span>{service.seats > 0 ? "How many seats?" : "How many of these?"}</span>
                          <Counter
                            value={item.quantity}
                            min={1}
                            max={service.seats || 20}
                            onValue={(quantity) => setItem(service.id, { quantity })}
                            what={service.name}
                          />
                        </Box>
                      )}
                    </Box>
                  )}
              </Box>
            );
          })}
        </Box>
      ))}
      {wrong("/items") && (
        <FormHelperText error role="alert">
          {wrong("/items")}
        </FormHelperText>
      )}
      {chosen.length > 0 && (
        <>
          {chosen.length === 1 && !long && (
            <Typography sx={{ color: ink.ash, mt: 2 }}>
              Need anything else done? Add it, and we’ll do it on the same visit.
            </Typography>
          )}
          {wishable(chosen).length > 0 && (
            <Wish
              technicians={wishable(chosen)}
              only={chosen.some(({ service }) => service.wish === "only")}
              chosen={draft.technicianId}
              onChoose={(technicianId) => onType({ technicianId })}
            />
          )}
          {!long && (
            <Again
              choices={commonRepeats(chosen.map(({ service }) => service.repeats))}
              chosen={draft.repeat}
              onChoose={(repeat) => onType({ repeat })}
            />
          )}
          <Box role="group" aria-label="Anything we should know" sx={{ mt: 5, display: "grid", gap: 3 }}>
            <TextField
              label="Anything we should know"
              multiline
              minRows={2}
              size="medium"
              value={draft.note}
              onChange={(e) => onType({ note: e.target.value })}
              error={!!wrong("/note")}
              helperText={wrong("/note") ?? "A gate code, a dog, where to park"}
              slotProps={{ htmlInput: { maxLength: 1000 } }}
            />
            <Box>
              <Box sx={{ mb: 1 }}>
                Photos, if they help{" "}
                <Box component="span" sx={{ color: ink.ash }}>
                  (up to six)
                </Box>
              </Box>
              <PhotoField
                tokens={draft.photos}
                most={6}
                what="Photos of the work"
                place={photosOfOrder}
                onTokens={(photos) => onType({ photos })}
              />
              {wrong("/photos") && (
                <FormHelperText error role="alert">
                  {wrong("/photos")}
                </FormHelperText>
              )}
            </Box>
          </Box>
        </>
      )}
    </>
  );
}

/** Once, or again and again: as often as every chosen service lets. */
function Again({
  choices,
  chosen,
  onChoose,
}: {
  choices: readonly RepeatEvery[];
  chosen: RepeatEvery | null;
  onChoose: (repeat: RepeatEvery | null) => void;
}) {
  if (choices.length === 0) return null;
  return (
    <Box
      role="group"
      aria-label="Make it a regular visit?"
      sx={{ px: 3, py: 4, mt: 3, bgcolor: "#fff", border: `1px solid ${ink.line}`, borderRadius: "6px" }}
    >
      <Box sx={{ fontWeight: 650, mb: 2 }}>Make it a regular visit?</Box>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
        <Pick on={chosen === null} onPick={() => onChoose(null)}>
          Just this once
        </Pick>
        {choices.map((every) => (
          <Pick
            key={everyWords(every)}
            on={chosen !== null && everyWords(chosen) === everyWords(every)}
            onPick={() => onChoose(every)}
          >
            {everyWords(every)}
          </Pick>
        ))}
      </Box>
      {chosen && (
        <Box sx={{ color: ink.ash, mt: 2, fontSize: 15 }}>
          At the same time of day. We write to you before each visit, and you can end it whenever you like.
        </Box>
      )}
    </Box>
  );
}

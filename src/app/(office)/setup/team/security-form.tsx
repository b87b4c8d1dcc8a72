"use client";
import { type Role, roles } from "@/core/people/permissions";
import { FormFrame } from "@/ui/form-frame";
import { Columns, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { SetupData } from "../data";

/** What strangers may keep before they show who they are, who needs a second factor, and what there is to send and to charge with. */
export function SecurityForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-security",
    of: "security",
    from: data.security,
    input: (d) => d,
    name: () => "Security",
    saved: () => saved(),
  });
  const demand = (role: Role, on: boolean) =>
    set({
      secondFactorRoles: on ? [...draft.secondFactorRoles, role] : draft.secondFactorRoles.filter((r) => r !== role),
    });
  return (
    <FormFrame title="Security" key={round} {...frame}>
      <FormSection
        title="Strangers at the front door"
        note="Somebody who has neither paid nor confirmed a code is a stranger. A few times are a family's; many are somebody who closes your calendar."
      >
        <Columns>
          <WholeField
            label="Times one stranger may keep"
            value={draft.unprovedEach}
            onValue={(unprovedEach) => set({ unprovedEach })}
            wrong={wrong("/unprovedEach")}
            helperText="Of one browser, email or phone"
          />
          <WholeField
            label="Times one customer may book"
            value={draft.provedEach}
            onValue={(provedEach) => set({ provedEach })}
            wrong={wrong("/provedEach")}
            helperText="Online, ahead or within a day"
          />
          <WholeField
            label="Of a day, %"
            value={draft.unprovedPercent}
            onValue={(unprovedPercent) => set({ unprovedPercent })}
            wrong={wrong("/unprovedPercent")}
            helperText="All strangers together"
          />
          <WholeField
            label="Free bookings a day"
            value={draft.unprovedADay}
            onValue={(unprovedADay) => set({ unprovedADay })}
            wrong={wrong("/unprovedADay")}
            helperText="Further ones wait for a code"
          />
        </Columns>
      </FormSection>
      <FormSection
        title="Second factor"
        note="Besides the password, a code from an authenticator app. Whoever must have one sets it up at the next sign-in, before anything else."
      >
        <Box>
          {(Object.keys(roles) as Role[]).map((role) => (
            <FormControlLabel
              key={role}
              control={
                <Checkbox
                  checked={draft.secondFactorRoles.includes(role)}
                  onChange={(e) => demand(role, e.target.checked)}
                />
              }
              label={roles[role].name}
            />
          ))}
        </Box>
      </FormSection>
      <FormSection title="Ways to the outside" note="These are set where Hogar runs, not here.">
        <Box component="ul" sx={{ m: 0, pl: 5 }}>
          <Way there={data.outside.mail} name="Email">
            No email is sent. Set SMTP_URL where Hogar is started.
          </Way>
          <Way there={data.outside.text} name="Texts">
            No text service is connected: texts are not sent.
          </Way>
          <Way there={data.outside.cards} name="Cards">
            No card service is connected: customers are asked for no card, and deposits are not taken.
          </Way>
        </Box>
        <LinkBox href="/records?list=security" sx={{ color: ink.lake }}>
          Read the security log
        </LinkBox>
      </FormSection>
    </FormFrame>
  );
}

const Way = ({ there, name, children }: { there: boolean; name: string; children: string }) => (
  <Box component="li" sx={{ color: there ? ink.moss : ink.ember }}>
    {name}: {there ? "connected" : children}
  </Box>
);

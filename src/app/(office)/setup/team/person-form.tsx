"use client";
import {
  allPermissions,
  type Permission,
  permissionsOf,
  permissionWords,
  type Role,
  roles,
} from "@/core/people/permissions";
import { FormFrame, without } from "@/ui/form-frame";
import { Columns, Field } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useKeptForm } from "@/ui/use-kept-form";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import type { SetupData } from "../data";

type Person = SetupData["people"][number];
type Draft = Omit<Person, "id" | "sessions"> & { id: number | null; password: string };
const fresh: Draft = {
  id: null,
  name: "",
  mail: "",
  role: "dispatcher",
  technicianId: null,
  active: true,
  given: [],
  taken: [],
  password: "",
};

export function PersonForm({
  person,
  data,
  saved,
}: {
  person: Person | null;
  data: SetupData;
  saved: (id?: number) => void;
}) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-person",
    of: `people ${person?.id ?? "new"}`,
    from: person ? { ...without(person, "sessions"), password: "" } : fresh,
    input: ({ password, ...rest }: Draft) => ({ ...rest, ...(password && { password }) }),
    name: (d) => d.name,
    saved: (value) => saved(value.id),
    secret: ["password"],
  });
  const end = useChange("end-sessions", {
    then({ ended }) {
      enqueueSnackbar(`${ended === 1 ? "The session has" : `${ended} sessions have`} ended`, { variant: "success" });
      saved();
    },
  });
  const hand = useChange("hand-incoming", {
    then(_, { personId }) {
      if (personId !== null) enqueueSnackbar(`${person?.name} handles incoming now`, { variant: "success" });
      saved();
    },
  });
  const { enqueueSnackbar } = useSnackbar();
  const free = data.technicians.filter((t) => !data.people.some((p) => p.technicianId === t.id && p.id !== draft.id));
  const handles = person !== null && data.incomingPersonId === person.id;
  return (
    <FormFrame title={person?.name ?? "New person"} key={round} {...frame}>
      <Columns>
        <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
        <Field
          label="Email"
          value={draft.mail}
          onChange={(e) => set({ mail: e.target.value })}
          wrong={wrong("/mail")}
        />
      </Columns>
      <Columns>
        <TextField
          select
          label="Role"
          value={draft.role}
          onChange={(e) => set({ role: e.target.value as Role, given: [], taken: [] })}
        >
          {Object.entries(roles).map(([role, { name }]) => (
            <MenuItem key={role} value={role}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Technician"
          value={draft.technicianId ?? ""}
          onChange={(e) => set({ technicianId: Number(e.target.value) || null })}
          error={!!wrong("/technicianId")}
          helperText={wrong("/technicianId") ?? "Whose day this person sees on the phone"}
        >
          <MenuItem value="">nobody’s</MenuItem>
          {free.map((t) => (
            <MenuItem key={t.id} value={t.id}>
              {t.name}
            </MenuItem>
          ))}
        </TextField>
      </Columns>
      <Field
        label={person ? "New password" : "Password"}
        type="password"
        autoComplete="new-password"
        value={draft.password}
        onChange={(e) => set({ password: e.target.value })}
        wrong={wrong("/password")}
        helperText={person ? "Left empty, it stays" : "At least 10 characters"}
      />
      <FormControlLabel
        control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />}
        label="May sign in"
      />
      <Permissions draft={draft} set={set} />
      {person && (
        <FormSection
          title="Incoming"
          note="Bookings and requests that wait for a person are shown to whoever handles them."
        >
          <Box>
            {handles ? (
              <>
                {person.name} handles incoming.{" "}
                <Button size="small" onClick={() => void hand.send({ personId: null })}>
                  Whoever may
                </Button>
              </>
            ) : (
              <Button variant="outlined" onClick={() => void hand.send({ personId: person.id })}>
                Hand incoming to {person.name}
              </Button>
            )}
            {hand.wrong("/personId") && (
              <Box role="alert" sx={{ color: "error.main", fontSize: 14, mt: 1 }}>
                {hand.wrong("/personId")}
              </Box>
            )}
          </Box>
        </FormSection>
      )}
      {person && person.sessions > 0 && (
        <Button variant="outlined" sx={{ justifySelf: "start" }} onClick={() => void end.send({ personId: person.id })}>
          End {person.sessions === 1 ? "the session" : `${person.sessions} sessions`}
        </Button>
      )}
    </FormFrame>
  );
}

/** What the role allows, with what this person may beside it or may not. */
function Permissions({ draft, set }: { draft: Draft; set: (change: Partial<Draft>) => void }) {
  const byRole = roles[draft.role].permissions;
  const now = permissionsOf(draft.role, draft.given, draft.taken);
  const put = (permission: Permission, on: boolean) => {
    const [given, taken] = [draft.given.filter((p) => p !== permission), draft.taken.filter((p) => p !== permission)];
    const asRole = byRole.includes(permission) === on;
    set(
      asRole
        ? { given, taken }
        : on
          ? { given: [...given, permission], taken }
          : { given, taken: [...taken, permission] },
    );
  };
  return (
    <FormSection
      title="What this person may do"
      note="The role says it; here something can be given or taken for this person alone."
    >
      <Box>
        {allPermissions.map((permission) => {
          const on = now.includes(permission);
          const differs = on !== byRole.includes(permission);
          return (
            <Box key={permission}>
              <FormControlLabel
                control={<Switch size="small" checked={on} onChange={(e) => put(permission, e.target.checked)} />}
                label={
                  <>
                    {permissionWords[permission]}
                    {differs && (
                      <Box component="span" sx={{ color: ink.lake, ml: 2 }}>
                        {on ? "given" : "taken"}
                      </Box>
                    )}
                  </>
                }
              />
            </Box>
          );
        })}
      </Box>
    </FormSection>
  );
}

"use client";
import { type Permission, permit } from "@/core/people/permissions";
import { Mark } from "@/ui/arch";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import { forgetTyped } from "@/ui/use-kept-form";
import CalendarViewDayOutlined from "@mui/icons-material/CalendarViewDayOutlined";
import DoorFrontOutlined from "@mui/icons-material/DoorFrontOutlined";
import ForumOutlined from "@mui/icons-material/ForumOutlined";
import LogoutOutlined from "@mui/icons-material/LogoutOutlined";
import MoveToInboxOutlined from "@mui/icons-material/MoveToInboxOutlined";
import PeopleOutlined from "@mui/icons-material/PeopleOutlined";
import PersonOutlined from "@mui/icons-material/PersonOutlined";
import ReceiptLongOutlined from "@mui/icons-material/ReceiptLongOutlined";
import RepeatOutlined from "@mui/icons-material/RepeatOutlined";
import TuneOutlined from "@mui/icons-material/TuneOutlined";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Tooltip from "@mui/material/Tooltip";
import { usePathname } from "next/navigation";
import { type ReactNode, useEffect, useState } from "react";
import { FindAnything } from "./find-anything";
import { NewCustomer } from "./customers/new-customer";
import { KeysHelp } from "./keys-help";
import { OfficeContext, type OfficePerson, type OfficeState } from "./office-context";

const places: {
  href: string;
  word: string;
  icon: typeof DoorFrontOutlined;
  needs: Permission | `${Permission} of all`;
}[] = [
  { href: "/today", word: "Today", icon: DoorFrontOutlined, needs: "office.see" },
  { href: "/board", word: "Board", icon: CalendarViewDayOutlined, needs: "office.see" },
  { href: "/incoming", word: "Incoming", icon: MoveToInboxOutlined, needs: "board.change" },
  { href: "/customers", word: "Customers", icon: PeopleOutlined, needs: "customers.see" },
  { href: "/repeats", word: "Repeats", icon: RepeatOutlined, needs: "customers.see" },
  { href: "/messages", word: "Messages", icon: ForumOutlined, needs: "contacts.see" },
  { href: "/money", word: "Money", icon: ReceiptLongOutlined, needs: "money.see of all" },
  { href: "/setup", word: "Set-up", icon: TuneOutlined, needs: "setup.change" },
];

/** The frame of the office: rail, finder, keys. */
export function Office({
  person,
  demo,
  children,
}: {
  person: OfficePerson;
  demo: OfficeState["demo"];
  children: ReactNode;
}) {
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const [making, setMaking] = useState(false);
  const mayMake = person.permissions.includes("customers.change");
  const path = usePathname();
  const seen = places.filter((place) => permit(person.permissions, place.needs));

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
        event.preventDefault();
        setFinding(true);
      }
      const typing =
        event.target instanceof HTMLElement &&
        event.target.closest("input, textarea, [contenteditable], [role=dialog], [role=menu], [role=listbox]");
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "?") setKeys(true);
      if (event.key.toLowerCase() === "n" && mayMake) {
        event.preventDefault();
        setMaking(true);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [mayMake]);

  const signOut = async () => {
    await fetch("/api/session", { method: "DELETE", headers: { "content-type": "application/json" }, body: "{}" });
    forgetTyped();
    window.location.assign("/signin");
  };

  return (
    <OfficeContext.Provider
      value={{ person, demo, openFind: () => setFinding(true), openNewCustomer: () => setMaking(true) }}
    >
      <Box sx={{ display: "flex", minHeight: "100dvh" }}>
        <Box
          sx={{
            width: 84,
            flex: "none",
            bgcolor: ink.plaster,
            borderRight: `1px solid ${ink.line}`,
            display: "flex",
            flexDirection: "column",
            alignItems: "center",
            pt: 3,
            gap: 1,
            position: "sticky",
            top: 0,
            height: "100dvh",
          }}
        >
          <Box sx={{ mb: 2 }}>
            <Mark />
          </Box>
          <Box
            component="nav"
            aria-label="Places"
            sx={{ display: "flex", flexDirection: "column", alignItems: "center", gap: 1 }}
          >
            {seen.map(({ href, word, icon: Icon }) => {
              const here = path.startsWith(href);
              return (
                <LinkBox
                  key={href}
                  href={href}
                  aria-current={here ? "page" : undefined}
                  sx={{
                    width: 66,
                    height: 64,
                    borderRadius: "33px 33px 6px 6px",
                    display: "flex",
                    flexDirection: "column",
                    alignItems: "center",
                    justifyContent: "center",
                    pt: 1,
                    gap: 0.5,
                    fontSize: 13,
                    textDecoration: "none",
                    color: here ? ink.paper : ink.ink,
                    bgcolor: here ? ink.pine : "transparent",
                    "&:hover": here ? {} : { bgcolor: ink.line },
                  }}
                >
                  <Icon sx={{ fontSize: 21 }} />
                  {word}
                </LinkBox>
              );
            })}
          </Box>
          <Box sx={{ flex: 1 }} />
          <Tooltip title={`${person.name}, ${person.role}: your account`} placement="right">
            <ButtonBase
              component="a"
              href="/account"
              aria-label="Your account"
              sx={{ width: 44, height: 44, borderRadius: "6px", color: ink.ash }}
            >
              <PersonOutlined fontSize="small" />
            </ButtonBase>
          </Tooltip>
          <Tooltip title="Sign out" placement="right">
            <ButtonBase
              onClick={() => void signOut()}
              aria-label="Sign out"
              sx={{ width: 44, height: 44, mb: 3, borderRadius: "6px", color: ink.ash }}
            >
              <LogoutOutlined fontSize="small" />
            </ButtonBase>
          </Tooltip>
        </Box>
        <Box component="main" sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
          {children}
        </Box>
      </Box>
      <FindAnything
        open={finding}
        onClose={() => setFinding(false)}
        onNewCustomer={mayMake ? () => setMaking(true) : null}
        screens={[
          ...seen.map(({ href, word }) => ({ href, word })),
          ...(person.permissions.includes("visits.all") ? [{ href: "/why-not", word: "Why not?" }] : []),
          ...(person.permissions.includes("audit.see") ? [{ href: "/records", word: "Who did what" }] : []),
          ...(mayMake ? [{ href: "/import", word: "Import" }] : []),
          { href: "/account", word: "Your account" },
          ...(person.permissions.includes("board.change")
            ? [{ href: "/why-not#book", word: "Book on the phone" }]
            : []),
        ]}
      />
      {mayMake && <NewCustomer open={making} onClose={() => setMaking(false)} />}
      <KeysHelp open={keys} onClose={() => setKeys(false)} />
    </OfficeContext.Provider>
  );
}

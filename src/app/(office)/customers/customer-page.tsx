"use client";
import { dateWords } from "@/core/time/words";
import { FormDrawer } from "@/ui/form-drawer";
import { LinkBox } from "@/ui/link-box";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useOffice } from "../office-context";
import { Top } from "../top";
import { CustomerForm } from "./customer-form";
import { CustomerMenu } from "./customer-menu";
import { type Customer, latest } from "./data";
import { Agreed, Cards, Invoices, Messages, Quotes, Repeats, Visits } from "./history";
import { Points } from "./points";
import { Sites } from "./sites";
import { WhoTheyAre } from "./who-they-are";

const CustomerAccount = dynamic(() => import("./account").then((m) => m.CustomerAccount), { ssr: false });

/** Who a customer is, where, and everything that was agreed with them. */
export function CustomerPage({ id }: { id: number }) {
  const router = useRouter();
  const [shown, setShown] = useState(latest);
  const [changing, setChanging] = useState(false);
  const customer = useShown("customer", { id, ...shown });
  const { permissions } = useOffice().person;
  const mayChange =
    permissions.includes("customers.change") && customer.erased === null && customer.mergedInto === null;
  return (
    <>
      <Top
        title={customer.name}
        sum={<Standing customer={customer} />}
        action={
          mayChange && (
            <Box sx={{ display: "flex", gap: 2, flex: "none" }}>
              <Button variant="contained" onClick={() => setChanging(true)}>
                Change
              </Button>
              <CustomerMenu customer={customer} />
            </Box>
          )
        }
      />
      <Box
        sx={{
          px: 6,
          pb: 8,
          display: "grid",
          gridTemplateColumns: { xs: "1fr", md: "minmax(280px, 340px) minmax(0, 1fr)" },
          gap: 7,
          alignItems: "start",
        }}
      >
        <Box>
          <WhoTheyAre customer={customer} />
          <Cards customer={customer} />
          <Points customer={customer} />
          <Agreed customer={customer} />
        </Box>
        <Box>
          <Sites customer={customer} mayChange={mayChange} />
          <Visits customer={customer} onMore={() => setShown({ ...shown, visits: shown.visits + 50 })} />
          <Repeats customer={customer} />
          <Quotes customer={customer} />
          <Invoices customer={customer} />
          {permissions.includes("money.see") && <CustomerAccount customer={customer} />}
          <Messages customer={customer} onMore={() => setShown({ ...shown, messages: shown.messages + 50 })} />
        </Box>
      </Box>
      <FormDrawer open={changing} label={`Change ${customer.name}`} onClose={() => setChanging(false)}>
        <CustomerForm
          customer={customer}
          saved={() => setChanging(false)}
          onOpen={(other) => router.push(`/customers/${other}`)}
        />
      </FormDrawer>
    </>
  );
}

/** In one line: since when, and what is out of the ordinary. */
function Standing({ customer: c }: { customer: Customer }) {
  if (c.erased) return `erased on ${dateWords(c.erased)}`;
  if (c.mergedInto !== null)
    return (
      <>
        merged into{" "}
        <LinkBox href={`/customers/${c.mergedInto}`} sx={{ color: ink.lake }}>
          another customer
        </LinkBox>
      </>
    );
  return `${c.archived ? "archived · " : ""}customer since ${dateWords(c.since)}`;
}

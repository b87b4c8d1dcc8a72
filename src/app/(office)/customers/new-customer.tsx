"use client";
import { FormDrawer } from "@/ui/form-drawer";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";

// Not before somebody asks for it: it is on every screen.
const CustomerForm = dynamic(() => import("./customer-form").then((m) => m.CustomerForm));

/** Somebody new, over whatever is on the screen. */
export function NewCustomer({ open, onClose }: { open: boolean; onClose: () => void }) {
  const router = useRouter();
  const show = (id: number) => {
    onClose();
    router.push(`/customers/${id}`);
  };
  return (
    <FormDrawer open={open} label="New customer" onClose={onClose}>
      {open && <CustomerForm customer={null} saved={show} onOpen={show} />}
    </FormDrawer>
  );
}

import { NotesProvider } from "@/ui/notes";
import type { ReactNode } from "react";

export default function Layout({ children }: { children: ReactNode }) {
  return <NotesProvider>{children}</NotesProvider>;
}

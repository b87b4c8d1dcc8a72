import { ownPath } from "@/core/people/own-path";
import { getHogar } from "@/server/hogar";
import { readBusiness } from "@/store/business";
import { SignInForm } from "./sign-in-form";

export const metadata = { title: "Sign in" };

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const business = readBusiness(getHogar().store);
  const { to } = await searchParams;
  return (
    <SignInForm business={business?.name ?? "Hogar"} isDemo={business?.demo_offset_ms != null} back={ownPath(to)} />
  );
}

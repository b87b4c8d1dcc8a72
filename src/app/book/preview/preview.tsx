"use client";
import { useEffect, useState } from "react";
import type { Business } from "../data";
import { FrontDoor } from "../front-door";

/** The real page in a frame of set-up, which sends it what is being typed. */
export function Preview({ saved }: { saved: Business }) {
  const [business, setBusiness] = useState(saved);
  useEffect(() => {
    const onMessage = (event: MessageEvent) => {
      const data = event.data as { hogarPreview?: Business } | null;
      if (event.origin === window.location.origin && data?.hogarPreview) setBusiness(data.hogarPreview);
    };
    window.addEventListener("message", onMessage);
    window.parent.postMessage({ hogarPreviewReady: true }, window.location.origin);
    return () => window.removeEventListener("message", onMessage);
  }, []);
  return <FrontDoor business={business} slug={null} source={null} preview />;
}

"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";

/** As much of schema.org as this directory reads. */
interface Listed {
  name: string;
  telephone: string;
  address?: string;
  makesOffer: {
    url: string;
    itemOffered: { name: string; description: string; category: string; serviceType?: string };
    priceSpecification?: { priceCurrency: string; price?: string; minPrice?: string; maxPrice?: string };
  }[];
}

/** A small directory of home services: it knows of businesses only what their feeds say, and leads to their front doors. */
export function Directory({ feed }: { feed: string }) {
  const [businesses, setBusinesses] = useState<Listed[] | null>(null);
  const [kind, setKind] = useState("");
  useEffect(() => {
    void fetch(feed)
      .then(async (answer) =>
        answer.ok
          ? ((await answer.json()) as { dataFeedElement: { item: Listed }[] }).dataFeedElement.map(
              (element) => element.item,
            )
          : [],
      )
      .catch(() => [])
      .then(setBusinesses);
  }, [feed]);
  if (!businesses) return <Box component="main" aria-busy="true" />;
  const kinds = [...new Set(businesses.flatMap((b) => b.makesOffer.map((o) => o.itemOffered.serviceType ?? "Other")))];
  return (
    <Box component="main" sx={{ maxWidth: 820, mx: "auto", p: 6 }}>
      <Typography variant="h1">A directory of home services</Typography>
      <Typography sx={{ color: ink.ash, mb: 5 }}>
        A stand-in: it shows what a directory would make of the feed.
      </Typography>
      {kinds.length > 1 && (
        <TextField
          select
          label="What do you need?"
          value={kind}
          onChange={(e) => setKind(e.target.value)}
          sx={{ mb: 5, maxWidth: 320 }}
        >
          <MenuItem value="">anything</MenuItem>
          {kinds.map((k) => (
            <MenuItem key={k} value={k}>
              {k}
            </MenuItem>
          ))}
        </TextField>
      )}
      {businesses.length === 0 && (
        <Typography>Nobody is listed. The owner switches it on in Set-up, Sharing.</Typography>
      )}
      {businesses.map((business) => (
        <Box key={business.name} component="section" aria-label={business.name}>
          <Typography variant="h2">{business.name}</Typography>
          <Typography sx={{ color: ink.ash, mb: 3 }}>
            {[business.address, business.telephone].filter(Boolean).join(" · ")}
          </Typography>
          {business.makesOffer
            .filter((o) => !kind || (o.itemOffered.serviceType ?? "Other") === kind)
            .map(({ url, itemOffered, priceSpecification: price }) => (
              <Box key={itemOffered.name} sx={{ display: "flex", gap: 4, py: 3, borderTop: `1px solid ${ink.line}` }}>
                <Box sx={{ flex: 1 }}>
                  <b>{itemOffered.name}</b>
                  <Box sx={{ color: ink.ash }}>{itemOffered.description}</Box>
                </Box>
                <Box sx={{ whiteSpace: "nowrap", textAlign: "right" }}>
                  {priceWords(price)}
                  <br />
                  <a href={`${url}${url.includes("?") ? "&" : "?"}from=directory`}>Book</a>
                </Box>
              </Box>
            ))}
        </Box>
      ))}
    </Box>
  );
}

function priceWords(price: Listed["makesOffer"][number]["priceSpecification"]): string {
  if (!price) return "price on request";
  const { minPrice, maxPrice, priceCurrency } = price;
  if (!minPrice) return `${price.price} ${priceCurrency}`;
  return maxPrice ? `${minPrice} to ${maxPrice} ${priceCurrency}` : `from ${minPrice} ${priceCurrency}`;
}

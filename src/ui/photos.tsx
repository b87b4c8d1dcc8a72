import Box from "@mui/material/Box";
import { imageAddress } from "./images";

/** Pictures that came with a booking; each opens in full. */
export const Photos = ({ tokens, size = 64 }: { tokens: readonly string[]; size?: number }) =>
  tokens.length === 0 ? null : (
    <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", mt: 1 }}>
      {tokens.map((token, i) => (
        <a key={token} href={imageAddress(token)} target="_blank" rel="noreferrer">
          <Box
            component="img"
            src={imageAddress(token)}
            alt={`Photo ${i + 1}`}
            sx={{ width: size, height: size, objectFit: "cover", borderRadius: "6px", display: "block" }}
          />
        </a>
      ))}
    </Box>
  );

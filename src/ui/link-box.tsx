"use client";
import Box, { type BoxProps } from "@mui/material/Box";
import NextLink from "next/link";

/** A box that leads somewhere. */
export const LinkBox = (props: BoxProps<typeof NextLink>) => <Box component={NextLink} {...props} />;

/** Kinds of home service as schema.org names them (subtypes of HomeAndConstructionBusiness and their nearest kin), with plain words. */
export const kindsOfBusiness = {
  Electrician: "Electrician",
  GeneralContractor: "Building and repairs",
  HVACBusiness: "Heating, flues and ventilation",
  HousePainter: "Painting",
  Locksmith: "Locks and keys",
  MovingCompany: "Moving",
  Plumber: "Plumbing",
  RoofingContractor: "Roofs and gutters",
  DryCleaningOrLaundry: "Cleaning of textiles",
  ProfessionalService: "Other work at the home",
} as const;

export type KindOfBusiness = keyof typeof kindsOfBusiness;

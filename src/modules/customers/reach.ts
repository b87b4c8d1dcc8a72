/** How somebody is reached, as they typed it or as we know them. */
export interface Reach {
  name: string;
  mail: string;
  phone: string;
}

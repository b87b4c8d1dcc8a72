import { Directory } from "./directory";

export const metadata = { title: "A directory (stand-in)" };

export default function DirectoryPage() {
  return <Directory feed="/directory.json" />;
}

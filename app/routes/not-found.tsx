import { data } from "react-router";

export function loader() {
  throw data("There is nothing at this address.", { status: 404 });
}

export default function NotFound() {
  return null;
}

import { TypeCode } from '@/interface/setups/alone/TypeCode'

/** The page of a code that no machine has. */
export default function NotFound() {
  return <TypeCode title="No bike has this code" />
}

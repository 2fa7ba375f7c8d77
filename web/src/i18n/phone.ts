// The texts of the pages that work without a line, and no others: they are fetched over a phone's connection.
import { phone } from "./en-phone";
import { speak } from "./start";

speak(phone);

import { en } from "./en";
import { speak } from "./start";

speak(en);

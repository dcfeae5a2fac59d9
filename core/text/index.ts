export {
  capitalized,
  type Cased,
  filled,
  inEnglish,
  joined,
  type Joined,
  type Message,
  msg,
  type Phrase,
  uncapitalized,
  unitText,
  type Unit,
  type Wording,
  written,
} from "./message";
export { counted, countWord, listed, sentences, sourceWords, withPoint } from "./words";

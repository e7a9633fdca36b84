import { applyChoices } from '@/wire/choices';
import type { Choices } from '@/wire/choices';

/** A worker expects and prints as the page does that began it: it is named by the workshop's choices. */
if (self.name) applyChoices(JSON.parse(self.name) as Choices);

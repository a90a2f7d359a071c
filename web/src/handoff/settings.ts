/** What a script's kits are made with, where nothing was set yet. */
import type { HandoffSettings } from '../api.ts';

export const handoffOf = (settings: { handoff?: HandoffSettings | undefined }): HandoffSettings => ({
  rate: '25',
  ssmlLimit: 5000,
  voiceMade: false,
  picturesMade: false,
  voiceMinutes: null,
  upload: {},
  recording: null,
  ...settings.handoff,
});

/** The part of the handoff that pages load: kinds of data and small figures; no writers, no tagger. */
export { LEAST_CHAPTERS, chapterClock } from './chapters.ts';
export type { Chapters } from './chapters.ts';
export type { Caption, CaptionFault, CaptionLimits } from './captions.ts';
export type { Changed } from './changed.ts';
export { FRAME_RATES, frameAt, timecode, type FrameRate } from './timecode.ts';
export { UPLOAD_PARTS, uploadOwnSchema, type UploadOwn, type UploadPart } from './uploadOwn.ts';
export type { UploadSheet } from './upload.ts';
export type { HowSaid, ProposedRest, VoiceBlock, VoiceLine, VoicePart } from './voice.ts';
export type { LineFit, Translation } from './translation.ts';
export { DOUBTFUL, type Laid, type LaidLine } from './recording.ts';
export { changedSinceRead, keptOf, recordingSchema, type KeptRecording } from './onRecording.ts';
export { RECIPIENTS, type Recipient } from './recipients.ts';

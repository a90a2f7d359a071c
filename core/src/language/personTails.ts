/** Words for people that others are made with: compounds are what their last part is (Quirk et al. 1985, appendix I). By itself, as the script that packs the classes needs it before there are any. */
export const PERSON_TAILS =
  /(?:man|woman|person|keeper|maker|master|mistress|worker|owner|holder|father|mother|smith|wright|monger)$/;

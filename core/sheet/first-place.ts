/** How the place of the sheet's own `placement` is called by steps that go back to it. */
export const FIRST_PLACE = "first";

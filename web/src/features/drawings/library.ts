import type { Schemas } from "../../api/client";

/** A device by its trade name, with its usual contacts. */
export type Usual = Schemas["UsualOut"];

/** The device types that can be put into a circuit, by id. */
export type Library = Schemas["DeviceTypeOut"];

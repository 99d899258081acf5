import { expect, it } from "vitest";
import { csvOf } from "./csv";

it("writes a line for each time, and no column nobody knows", () => {
  const trace = {
    time_s: [0, 0.5],
    speed_rpm: [0, 900],
    line_a: [120, 80.5],
    torque_lb_ft: [40, 60],
    load_lb_ft: [0, 10],
    relay: [0, 0.1],
    hottest_c: [40, 41],
    supply_percent: [],
  };
  expect(csvOf({ trace } as never)).toBe(
    "time_s,speed_rpm,line_a,torque_lb_ft,load_lb_ft,relay,hottest_c\n" +
      "0,0,120,40,0,0,40\n0.5,900,80.5,60,10,0.1,41\n",
  );
});

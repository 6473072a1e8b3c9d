import { expect, House, test } from "../house";

interface Day {
  day: { items: { name: string; eatenAt: string | null }[]; eaten: { energy: { value: number } } };
}

test("over the night the clock is changed and in another zone everything stays on its day", async () => {
  // Saturday evening; in this zone the clock goes back an hour on Sunday, 25 October 2026, at 3:00.
  const house = new House(false, "2026-10-24T22:30");
  try {
    await house.openProcess("Europe/Berlin");
    const aim = { leading: "energy", bands: { energy: { max: 2000 } }, rule: null };
    const { id } = (await house.send("POST", "/api/aim/eaters", { name: "Ada", aim })) as { id: string };
    const eat = async (text: string, day: string) => {
      const { version } = await house.get(`/api/plan/weeks/${day}`);
      await house.send("POST", "/api/plan/foods", { text, eaterId: id, day, eaten: true }, version);
    };
    const read = async (day: string) => ((await house.get(`/api/eat/${id}/${day}`)) as Day).day;
    const sheet = async () => {
      const text = await (await fetch(`${house.url}/api/backup/sheets/entries.csv`)).text();
      return text
        .trim()
        .split("\r\n")
        .slice(1)
        .map((line) => line.split(","))
        .map(([day, , , name, grams]) => [day, name, grams].join(" "));
    };

    await eat("1 apple", "2026-10-24");
    await house.send("POST", "/api/demo/pass", { minutes: 240 });
    // 2:30, the first time; an hour later it is 2:30 again, and another after that 3:30.
    await eat("2 eggs", "2026-10-25");
    await house.send("POST", "/api/demo/pass", { minutes: 60 });
    await eat("1 banana", "2026-10-25");
    const [saturday, sunday, rows] = [await read("2026-10-24"), await read("2026-10-25"), await sheet()];
    expect(saturday.items.map(({ name }) => name)).toEqual(["apple"]);
    expect(sunday.items.map(({ name }) => name)).toEqual(["egg, whole", "banana"]);
    expect(rows).toHaveLength(3);

    // East and west of it, where the household's day is the one before or the one after.
    for (const zone of ["Pacific/Auckland", "America/Los_Angeles", "Pacific/Kiritimati"]) {
      await house.close();
      await house.openProcess(zone);
      for (const [day, was] of [
        ["2026-10-24", saturday],
        ["2026-10-25", sunday],
      ] as const) {
        const now = await read(day);
        expect(
          now.items.map(({ name, eatenAt }) => [name, eatenAt]),
          `${zone}, ${day}`,
        ).toEqual(was.items.map(({ name, eatenAt }) => [name, eatenAt]));
        expect(now.eaten.energy.value).toBe(was.eaten.energy.value);
      }
      expect(await sheet()).toEqual(rows);
    }
  } finally {
    await house.end();
  }
});

using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using LivelyTern.Core.Plan;

namespace LivelyTern.Formats.Calendar;

/// <summary>
/// Writes iCalendar (RFC 5545). Times are the kitchen's own, without a zone: half past seven is half past seven wherever it is read.
/// </summary>
public static class CalendarFile
{
    private static readonly TimeSpan Meal = TimeSpan.FromMinutes(30);

    /// <summary>A file with an event for each entry.</summary>
    /// <param name="name">What the calendar is called.</param>
    /// <param name="entries">What it shows.</param>
    public static string Write(string name, IEnumerable<CalendarEntry> entries)
    {
        ArgumentNullException.ThrowIfNull(entries);
        var calendar = new Ical.Net.Calendar { ProductId = "-//Lively Tern//Week//EN", Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", Printable(name));
        foreach (var entry in entries)
        {
            var start = entry.At is { } at ? new CalDateTime(entry.Day, at) : new CalDateTime(entry.Day);
            calendar.Events.Add(new CalendarEvent
            {
                Uid = entry.Uid + "@lively-tern",
                Summary = Printable(entry.Title),
                Description = entry.Text.Length > 0 ? Printable(entry.Text) : null,
                DtStamp = new CalDateTime(entry.Day.Year, entry.Day.Month, entry.Day.Day, 0, 0, 0, "UTC"),
                Start = start,
                End = entry.At is { } from ? new CalDateTime(entry.Day.ToDateTime(from).Add(Meal)) : new CalDateTime(entry.Day.AddDays(1)),
                Transparency = "TRANSPARENT",
            });
        }

        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    // RFC 5545, 3.1: a text has no control characters but the tab; the end of a line is escaped.
    private static string Printable(string text) =>
        string.Concat(text.ReplaceLineEndings("\n").Where(letter => letter is '\n' or '\t' || !char.IsControl(letter)));
}

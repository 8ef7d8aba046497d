using System.Globalization;
using CsCheck;
using Zendle.Core.Schedules;

namespace Zendle.Core.Tests.Schedules;

public sealed class RecurrenceTests
{
    /// <summary>One hour before UTC+1 in summer: the last Sundays of March and October, as in much of Europe.</summary>
    private static readonly TimeZoneInfo Zone = TimeZoneInfo.CreateCustomTimeZone(
        "test",
        TimeSpan.FromHours(1),
        "test",
        "test",
        "test summer",
        [
            TimeZoneInfo.AdjustmentRule.CreateAdjustmentRule(
                new(2000, 1, 1),
                new(2100, 1, 1),
                TimeSpan.FromHours(1),
                // The hour from 3 to 4 is left out in spring, so that the hour work is due at is missing.
                TimeZoneInfo.TransitionTime.CreateFloatingDateRule(new(1, 1, 1, 3, 0, 0), 3, 5, DayOfWeek.Sunday),
                TimeZoneInfo.TransitionTime.CreateFloatingDateRule(new(1, 1, 1, 4, 0, 0), 10, 5, DayOfWeek.Sunday)
            ),
        ]
    );

    private static DateTimeOffset At(string text) => DateTimeOffset.Parse(text, CultureInfo.InvariantCulture);

    [Theory]
    [InlineData(Recurrence.EveryNight, "2026-11-27T01:59:59Z", "2026-11-27T02:00:00Z")] // 3 o'clock is 2 UTC in winter
    [InlineData(Recurrence.EveryNight, "2026-11-27T02:00:00Z", "2026-11-28T02:00:00Z")]
    [InlineData(Recurrence.EveryNight, "2026-07-01T12:00:00Z", "2026-07-02T01:00:00Z")] // and 1 UTC in summer
    [InlineData(Recurrence.EveryNight, "2026-03-28T12:00:00Z", "2026-03-29T02:00:00Z")] // 3 is left out: at 4, summer time
    [InlineData(Recurrence.EveryNight, "2026-12-31T20:00:00Z", "2027-01-01T02:00:00Z")]
    [InlineData(Recurrence.EveryWeek, "2026-11-27T12:00:00Z", "2026-11-29T02:00:00Z")] // a Friday
    [InlineData(Recurrence.EveryWeek, "2026-11-29T02:00:00Z", "2026-12-06T02:00:00Z")]
    public void Work_is_due_at_three_by_the_clock_on_the_wall(Recurrence recurrence, string after, string due) =>
        Assert.Equal(At(due), Recurrences.Next(recurrence, At(after), Zone));

    [Fact]
    public void What_is_due_lies_ahead_and_no_further_than_a_day_or_a_week_and_two_hours() =>
        Gen.Select(Gen.Long[0, 40L * 365 * 24 * 3600], Gen.Enum<Recurrence>())
            .Sample(
                (seconds, recurrence) =>
                {
                    var after = At("2010-01-01T00:00:00Z").AddSeconds(seconds);
                    var due = Recurrences.Next(recurrence, after, Zone);
                    var most = recurrence == Recurrence.EveryNight ? 1 : 7;
                    Assert.InRange(due - after, TimeSpan.FromTicks(1), TimeSpan.FromDays(most) + TimeSpan.FromHours(2));
                    Assert.InRange(TimeZoneInfo.ConvertTime(due, Zone).Hour, 3, 4);
                }
            );
}

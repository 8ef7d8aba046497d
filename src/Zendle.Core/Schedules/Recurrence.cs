namespace Zendle.Core.Schedules;

/// <summary>How often work is done by itself. Stored and told as its name.</summary>
public enum Recurrence
{
    /// <summary>Every night.</summary>
    EveryNight,

    /// <summary>Every week, in the night to Sunday.</summary>
    EveryWeek,
}

/// <summary>When work that recurs is due.</summary>
public static class Recurrences
{
    /// <summary>The hour it is due at, by the clock on the wall: when few are at work, and services have rest too.</summary>
    public const int Hour = 3;

    /// <summary>The first moment after another at which work is due, UTC.</summary>
    /// <param name="recurrence">How often.</param>
    /// <param name="after">The moment.</param>
    /// <param name="zone">Where the clock hangs. An hour that is left out in spring is taken one later; one that comes twice in
    /// autumn is taken once.</param>
    /// <exception cref="ArgumentOutOfRangeException">There is no such recurrence.</exception>
    public static DateTimeOffset Next(Recurrence recurrence, DateTimeOffset after, TimeZoneInfo zone)
    {
        var day = TimeZoneInfo.ConvertTime(after, zone).Date;
        while (true)
        {
            if (IsDay(recurrence, day) && At(day, zone) is var due && due > after)
                return due;
            day = day.AddDays(1);
        }
    }

    private static bool IsDay(Recurrence recurrence, DateTime day) =>
        recurrence switch
        {
            Recurrence.EveryNight => true,
            Recurrence.EveryWeek => day.DayOfWeek == DayOfWeek.Sunday,
            _ => throw new ArgumentOutOfRangeException(nameof(recurrence)),
        };

    private static DateTimeOffset At(DateTime day, TimeZoneInfo zone)
    {
        var local = day.AddHours(Hour);
        while (zone.IsInvalidTime(local))
            local = local.AddHours(1);
        return new DateTimeOffset(local, zone.GetUtcOffset(local)).ToUniversalTime();
    }
}

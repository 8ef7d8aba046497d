using System.Globalization;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Zendle.Store.Sqlite;

/// <summary>Keeps moments as UTC text (ISO 8601, milliseconds), which SQLite sorts and compares rightly.</summary>
public sealed class UtcText()
    : ValueConverter<DateTimeOffset, string>(
        t => t.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ss.fffZ", CultureInfo.InvariantCulture),
        s => DateTimeOffset.Parse(s, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal)
    );

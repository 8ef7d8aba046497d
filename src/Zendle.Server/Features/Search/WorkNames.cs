using System.Globalization;
using Zendle.Index.Columns;

namespace Zendle.Server.Features.Search;

/// <summary>What a work is called where there is no room for its title.</summary>
internal static class WorkNames
{
    /// <summary>The first person and the year.</summary>
    public static string Of(CorpusColumns columns, int work)
    {
        var person = columns.SortPerson[work] ?? "No author named";
        return columns.Year[work] > 0
            ? string.Create(CultureInfo.InvariantCulture, $"{person} {columns.Year[work]}")
            : person;
    }
}

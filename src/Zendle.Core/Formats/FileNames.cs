using System.Globalization;
using System.Text;
using Zendle.Core.Text;

namespace Zendle.Core.Formats;

/// <summary>Names of exported files: review, what is in it, how many, the day.</summary>
public static class FileNames
{
    /// <summary>
    /// For example <c>street-lighting-and-night-pollination_kept_62-works_2026-11-23.ris</c>. Only a–z, 0–9, hyphen,
    /// underscore and full stop.
    /// </summary>
    /// <param name="review">Title of the review.</param>
    /// <param name="holds">What the file holds, in a word or two.</param>
    /// <param name="works">How many works.</param>
    /// <param name="day">The day of the export.</param>
    /// <param name="ending">Ending without the full stop.</param>
    public static string Export(string review, string holds, int works, DateOnly day, string ending) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{Slug(review, 60)}_{Slug(holds, 40)}_{works}-{(works == 1 ? "work" : "works")}_{day:yyyy-MM-dd}.{ending}"
        );

    private static string Slug(string text, int longest)
    {
        var slug = new StringBuilder(longest);
        foreach (var word in Words.Of(text))
        {
            if (word.IsClosedForm)
                continue;
            var plain = string.Concat(word.Text.Where(char.IsAsciiLetterOrDigit));
            if (plain.Length == 0 || slug.Length + plain.Length + 1 > longest)
                continue;
            if (slug.Length > 0)
                slug.Append('-');
            slug.Append(plain);
        }
        return slug.Length == 0 ? "works" : slug.ToString();
    }
}

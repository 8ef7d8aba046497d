using System.Text;

namespace Zendle.Core.Text;

/// <summary>Makes one text of lines that were broken at a margin.</summary>
public static class BrokenLines
{
    /// <summary>
    /// Adds a line: a word that was divided at the end of the one before is whole again, an address or a range goes on
    /// without a blank.
    /// </summary>
    /// <param name="text">The text so far.</param>
    /// <param name="line">The line, without blanks around it.</param>
    public static void Add(StringBuilder text, string line)
    {
        if (
            text.Length > 1
            && text[^1] is '-' or '\u2010'
            && char.IsLower(text[^2])
            && line.Length > 0
            && char.IsLower(line[0])
        )
            text.Length--;
        else if (text.Length > 0 && text[^1] is not ('/' or '\u2013'))
            text.Append(' ');
        text.Append(line);
    }
}

using System.Collections.Frozen;

namespace Zendle.Core.Terms;

/// <summary>
/// Words that carry grammar rather than meaning, in the languages that abstracts come in most. A term neither begins
/// nor ends with one, but may have one inside: "light at night". Searches never leave them out.
/// </summary>
public static class FunctionWords
{
    private static readonly FrozenSet<string> All = new[]
    {
        // English
        """
            a about above across after again against all almost along already also although among an and another
            any are as at be became because become been before being below between both but by can cannot could
            despite did do does done down during each either else ever every few for from further had has have
            having he hence her here him his how however i if in into is it its just less like many may me might
            more most much must my neither never no nor not of off often on once one only onto or other our ours
            out over own per rather same several shall she should since so some still such than that the their
            them then there therefore these they this those though three through thus to together too toward
            towards two under until up upon us very via was we well were what when where whereas whether which
            while who whom whose why will with within without would yet you your
            """,
        // German
        """
            aber als am an auch auf aus bei bis das dass dem den der des die durch ein eine einem einen einer
            eines er es fur hat im ist mit nach nicht noch nur oder sich sie sind sowie uber um und unter vom
            von vor war waren wie wird wurde wurden zu zum zur zwischen
            """,
        // French
        """
            au aux avec ce ces cette chez comme dans de du elle en entre est et etaient ete il ils la le les
            leur leurs lors mais ne nous ou par pas plus pour qui que sans se ses son sont sous sur un une
            """,
        // Spanish, Portuguese, Italian
        """
            al com como con da das del della delle di do dos e el em entre era esta este foi fue gli ha han il
            in la las lo los mas na nas nel nella no nos o os para pero por sao se si sin sobre son su sua sul
            sulla um uma una y
            """,
        // Dutch
        """
            aan bij dat de een en het hun in is maar met naar niet ook of om onder op te tot uit van voor waren
            werd werden zijn
            """,
    }.SelectMany(language => language.Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries)).ToFrozenSet(StringComparer.Ordinal);

    /// <summary>Whether a folded word is one.</summary>
    public static bool Contains(string word) => All.Contains(word);

    /// <summary>
    /// Whether a folded word can begin or end a term: it carries meaning, is no number and, but for the scripts whose
    /// characters are words, has two letters.
    /// </summary>
    public static bool CanBound(string word) =>
        word.Length > 0 && !char.IsDigit(word[0]) && (word.Length > 1 || word[0] > '\u2E7F') && !All.Contains(word);
}

using Zendle.Core.Queries;
using Zendle.Core.Text;

namespace Zendle.Server.Features.Search.Terms;

/// <summary>Terms of nothing but words, as a vocabulary or an explanation in brackets gives them.</summary>
internal static class PlainTerm
{
    /// <summary>Whether a term of the board asks for just these words.</summary>
    public static bool Is(TermNode term, string[] words) =>
        term.Forms.Any(form =>
            form.Length == words.Length && form.Select((slot, i) => Glob.Matches(slot, words[i])).All(fits => fits)
        );

    /// <summary>The words of a text as a search folds them.</summary>
    public static string[] WordsOf(string text) => [.. Words.Of(text).Where(w => !w.IsClosedForm).Select(w => w.Text)];

    /// <summary>What asks for the words: one alone, several as a phrase.</summary>
    public static string Expression(string[] words) => words.Length > 1 ? $"\"{string.Join(' ', words)}\"" : words[0];

    /// <summary>What a refusal of the words is noted as.</summary>
    public static string Key(string[] words) => string.Join(' ', words);
}

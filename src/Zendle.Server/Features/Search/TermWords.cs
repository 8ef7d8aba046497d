using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Text;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Search;

/// <summary>Asks which words a truncated term stands for.</summary>
/// <param name="Text">The term as written: <c>mot*</c>, or a phrase with a truncated word in it.</param>
/// <param name="Scope">Name of the field it is looked for in.</param>
/// <param name="StepId">The step whose databases count.</param>
/// <param name="NotMeant">Words that are not meant.</param>
internal sealed record TermWordsRequest(string Text, string Scope, int StepId, IReadOnlyList<string> NotMeant);

/// <summary>A word that a truncated term stands for.</summary>
/// <param name="Word">The word, folded.</param>
/// <param name="Written">How it is written where it stands for a hyphenated word only; null else.</param>
/// <param name="Works">Works that the term finds through it alone.</param>
internal sealed record TermWordDto(string Word, string? Written, int Works);

/// <summary>The words a truncated term stands for.</summary>
/// <param name="Slot">The truncated word, folded.</param>
/// <param name="Words">The commonest words, each with the works the term finds through it alone.</param>
/// <param name="Total">How many words it stands for in all.</param>
/// <param name="Without">The term with the words that are not meant left out: terms joined by OR. Empty when no word is
/// left.</param>
/// <param name="Works">Works the term finds.</param>
/// <param name="WorksWithout">Works that are found without the words that are not meant.</param>
internal sealed record TermWordsDto(
    string Slot,
    IReadOnlyList<TermWordDto> Words,
    int Total,
    string Without,
    int Works,
    int WorksWithout
);

/// <summary>Shows the words behind a truncation and writes it anew without some of them.</summary>
internal sealed class TermWords(SearchService search)
{
    private const int MostCounted = 150;

    /// <summary>The words of a term; null when it holds no truncated word.</summary>
    public async Task<TermWordsDto?> Of(int reviewId, TermWordsRequest request, SearchState state)
    {
        var read = QueryReader.Read(request.Text).Root;
        var field =
            read is FieldNode { Field: var named } ? named
            : QueryFields.TryRead(request.Scope, out var scope) ? scope
            : QueryField.About;
        if (
            (read is FieldNode { Part: var part } ? part : read) is not TermNode term
            || Array.FindIndex([.. term.Slots], TermNode.IsPattern) is not (>= 0 and var at)
        )
            return null;
        using var view = await search.View(reviewId, SearchState.Everything with { Databases = state.Databases });
        var evaluator = view.Evaluator;
        var all = evaluator.WordsOf(term.Slots[at], field);
        var notMeant = request.NotMeant.Select(Words.Fold).ToHashSet(StringComparer.Ordinal);
        var without = Truncations
            .Without(term.Slots[at], all.Select(w => w.Word), notMeant)
            .Select(word => Written(term, at, word))
            .ToArray();
        var text = string.Join(" OR ", without);
        return new(
            term.Slots[at],
            [
                .. all.Take(MostCounted)
                    .Select(w => new TermWordDto(
                        w.Word,
                        evaluator.OnlyHyphenated(w.Word, field),
                        Works(evaluator, Written(term, at, w.Word), field, state)
                    ))
                    .Where(w => w.Works > 0)
                    .OrderByDescending(w => w.Works)
                    .ThenBy(w => w.Word, StringComparer.Ordinal),
            ],
            all.Count,
            text,
            Works(evaluator, request.Text, field, state),
            text.Length == 0 ? 0 : Works(evaluator, text, field, state)
        );
    }

    /// <summary>The term with another word in the place of the truncated one.</summary>
    private static string Written(TermNode term, int at, string word) =>
        term.IsPhrase ? $"\"{string.Join(' ', term.Slots.SetItem(at, word))}\"" : word;

    private static int Works(QuestionEvaluator evaluator, string text, QueryField field, SearchState state) =>
        evaluator.Works(text, state.Databases, field).Count();
}

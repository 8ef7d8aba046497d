using Zendle.Core.People;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Text;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Search;

/// <summary>Asks how the word at the caret may go on.</summary>
internal sealed record CompleteRequest(string Text, int Caret, int StepId);

/// <summary>One way a line may go on.</summary>
/// <param name="Kind">"word", "keyword", "person", "venue", "field" or "value".</param>
/// <param name="Label">What is shown.</param>
/// <param name="Text">The whole line after it.</param>
/// <param name="Caret">Where the caret then stands.</param>
/// <param name="Works">Works that what is put in finds by itself; null for the name of a field.</param>
internal sealed record CompletionDto(string Kind, string Label, string Text, int Caret, int? Works);

/// <summary>
/// Offers how a line may go on: words and keywords of the corpus, people, venues, fields and their values; each with
/// its own count.
/// </summary>
internal sealed class Completions(SearchService search)
{
    private const int Most = 9;

    private static readonly Dictionary<QueryField, Facet> Valued = new()
    {
        [QueryField.Venue] = Facet.Venue,
        [QueryField.Author] = Facet.Person,
        [QueryField.Person] = Facet.Person,
        [QueryField.Subject] = Facet.Subject,
        [QueryField.Type] = Facet.Type,
        [QueryField.Language] = Facet.Language,
        [QueryField.Database] = Facet.Database,
        [QueryField.Affiliation] = Facet.Affiliation,
        [QueryField.Funder] = Facet.Funder,
        [QueryField.Keywords] = Facet.Keyword,
    };

    /// <summary>The ways on from the caret, words first; none where nothing is begun.</summary>
    public async Task<IReadOnlyList<CompletionDto>> For(int reviewId, string text, int caret, SearchState state)
    {
        if (BegunWord.At(text, caret) is not { } begun)
            return [];
        using var view = await search.View(reviewId, SearchState.Everything with { Databases = state.Databases });
        var offered = (begun.Field is { } field ? Values(view, begun, field) : Anything(view, begun))
            .DistinctBy(o => o.Put)
            .ToArray();
        return
        [
            .. offered
                .Select(o => Offer(view.Evaluator, text, begun, o.Kind, o.Label, o.Put, state))
                .Where(o => o.Works != 0)
                .Take(Most),
        ];
    }

    private static IEnumerable<(string Kind, string Label, string Put)> Anything(SearchView view, BegunWord begun)
    {
        var columns = view.Snapshot.Columns;
        if (!begun.Letters.Contains(' ', StringComparison.Ordinal) && !begun.IsQuoted)
            foreach (
                var (word, _) in view
                    .Evaluator.WordsOf(begun.Letters + "*", QueryField.About)
                    .Where(w => w.Word != begun.Letters)
                    .Take(4)
            )
                yield return ("word", word, word);
        foreach (
            var keyword in columns
                .Of(Facet.Keyword)
                .Beginning(begun.Letters, 40)
                .Where(k => k.Contains(' ', StringComparison.Ordinal))
                .Take(3)
        )
            yield return ("keyword", $"“{keyword}”", Quoted(keyword));
        if (begun.IsQuoted)
            yield break;
        foreach (var name in QueryFields.Names.Where(n => n.StartsWith(begun.Letters, StringComparison.Ordinal)))
            yield return ("field", name + ":", name + ":");
        if (begun.Letters.Length < 3)
            yield break;
        foreach (
            var family in columns
                .Of(Facet.Person)
                .Beginning(begun.Letters, 200)
                .Select(Family)
                .Where(f => Words.Fold(f).StartsWith(begun.Letters, StringComparison.Ordinal))
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Take(2)
        )
            yield return ("person", family, $"author:{Term(family)}");
        foreach (var venue in columns.Of(Facet.Venue).Beginning(begun.Letters, 1))
            yield return ("venue", venue, $"venue:{Quoted(venue)}");
    }

    private static IEnumerable<(string Kind, string Label, string Put)> Values(
        SearchView view,
        BegunWord begun,
        QueryField field
    )
    {
        var name = QueryFields.Name(field);
        if (field == QueryField.Author)
        {
            foreach (
                var family in view
                    .Snapshot.Columns.Of(Facet.Person)
                    .Beginning(begun.Letters, 200)
                    .Select(Family)
                    .Distinct(StringComparer.OrdinalIgnoreCase)
                    .Take(Most)
            )
                yield return ("value", family, $"author:{Term(family)}");
            yield break;
        }
        IEnumerable<string> values = field switch
        {
            QueryField.Tag => view
                .Facts.Tags.Keys.Where(t => Words.Fold(t).Contains(begun.Letters, StringComparison.Ordinal))
                .Order(StringComparer.OrdinalIgnoreCase),
            QueryField.Stage => new[] { Stage.Found, Stage.Kept, Stage.SetAside }
                .Select(Stages.Name)
                .Where(s => s.StartsWith(begun.Letters, StringComparison.Ordinal)),
            _ => Valued.TryGetValue(field, out var facet)
                ? view.Snapshot.Columns.Of(facet).Beginning(begun.Letters, Most)
                : [],
        };
        foreach (var value in values.Take(Most))
            yield return ("value", value, $"{name}:{Term(value)}");
    }

    private static CompletionDto Offer(
        QuestionEvaluator evaluator,
        string text,
        BegunWord begun,
        string kind,
        string label,
        string put,
        SearchState state
    )
    {
        var line = text[..begun.Start] + put + text[begun.End..];
        int? works = kind == "field" ? null : evaluator.Works(put, state.Databases).Count();
        return new(kind, label, line, begun.Start + put.Length, works);
    }

    private static string Family(string label) => PersonLabel.Read(label).Family.Trim();

    private static string Quoted(string words) => $"\"{words.Replace('"', ' ')}\"";

    private static string Term(string value) => value.All(char.IsLetterOrDigit) ? value : Quoted(value);
}

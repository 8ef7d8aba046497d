using System.Text;
using AngleSharp.Dom;
using Zendle.Core.FullText;

namespace Zendle.Documents.Marked;

/// <summary>What a marked-up text says of itself, for the check and for its reference list.</summary>
internal static class MarkedFacts
{
    private const int MostLines = 1_200,
        MostHeadings = 200,
        WordsOfAPage = 500;

    // Its letters have no size; what is larger in print is larger here.
    private const double Body = 10,
        Small = 9,
        Title = 18,
        Heading = 13;

    /// <summary>The facts of a text.</summary>
    public static DocumentFacts Of(MarkedText text, TextFormat format)
    {
        var pieces = text.Pieces;
        var titleAt = Math.Max(0, pieces.ToList().FindIndex(p => p.Level == 1));
        // Its first page is what stands before its body: people, dates, the abstract.
        var bodyAt = pieces
            .Index()
            .Skip(titleAt + 1)
            .Where(p => p.Item.Kind == BlockKind.Heading && !IsOfFront(p.Item.Text))
            .Select(p => p.Index)
            .FirstOrDefault(pieces.Count);
        var words = Words(pieces, bodyAt);
        TextBlock[] entries = [.. pieces.Where(p => p.Kind == BlockKind.Entry)];
        string[] references = [.. entries.Select(e => e.Text)];
        TextBlock[] running = [.. pieces.Where(p => p.Kind is BlockKind.Paragraph or BlockKind.Aside)];
        return new()
        {
            Format = format,
            Pages = Math.Max(1, (words + WordsOfAPage - 1) / WordsOfAPage),
            WordCount = words,
            BodySize = Body,
            Lines =
            [
                .. pieces
                    .Skip(titleAt)
                    .Take(MostLines)
                    .Select(
                        (p, i) =>
                            new DocumentLine(
                                p.Text,
                                titleAt + i < bodyAt ? 1 : 2,
                                p.Kind == BlockKind.Entry ? Small
                                    : p.Kind != BlockKind.Heading ? Body
                                    : p.Level == 1 ? Title
                                    : Heading,
                                p.Kind == BlockKind.Heading
                            )
                    ),
            ],
            Headings =
            [
                .. ReadableText.HeadingsOf(text).Take(MostHeadings).Select(h => new DocumentHeading(h.Text, 1)),
            ],
            Text = [new(1, Running(pieces))],
            References = references,
            Citations =
                CitingSentences.Linked([.. running.Select(p => Marked(p.Element, text))])
                ?? CitingSentences.Printed([.. running.Select(p => p.Text)], references, IsNumbered(entries)),
        };
    }

    private static string Running(IReadOnlyList<TextBlock> pieces)
    {
        var text = string.Join('\n', pieces.Where(p => p.Kind != BlockKind.Entry).Select(p => p.Text));
        return text.Length > RunningText.Most ? text[..RunningText.Most] : text;
    }

    /// <summary>Words of the running text alone: not the abstract, lists or tables, which pages without a text have, too.</summary>
    private static int Words(IReadOnlyList<TextBlock> pieces, int bodyAt)
    {
        var inBody = pieces.Skip(bodyAt).Where(p => p.Kind == BlockKind.Paragraph).ToArray();
        // Without headings nothing tells the front from the body but that a body goes on.
        var counted = bodyAt < pieces.Count ? inBody : [.. pieces.Where(p => p.Kind == BlockKind.Paragraph)];
        return counted.Sum(p => 1 + p.Text.Count(c => c == ' '));
    }

    private static bool IsOfFront(string heading) =>
        heading.TrimEnd(':', '.').ToUpperInvariant()
            is "ABSTRACT"
                or "SUMMARY"
                or "KEYWORDS"
                or "KEY WORDS"
                or "AUTHORS"
                or "AFFILIATIONS"
                or "HIGHLIGHTS"
                or "GRAPHICAL ABSTRACT"
                or "ZUSAMMENFASSUNG"
                or "RÉSUMÉ"
                or "RESUMEN"
                or "RESUMO";

    /// <summary>The words of a piece; behind each link to an entry stands its mark.</summary>
    private static string Marked(IElement piece, MarkedText text)
    {
        var words = new StringBuilder();
        foreach (var node in piece.Descendants<IText>())
        {
            var within = node.Ancestors<IElement>().TakeWhile(e => e != piece).ToArray();
            var link = Array.Find(within, e => e.LocalName == "a")?.GetAttribute("href");
            var entry = link is ['#', .. var id] ? text.EntryOf(Uri.UnescapeDataString(id)) : null;
            // A raised number is no word of the sentence, nor are the commas between several.
            var isRaised = Array.Exists(within, e => e.LocalName == "sup");
            if (!isRaised || (entry is null && node.Data.Any(char.IsLetterOrDigit)))
                words.Append(MarkedText.Plain(node.Data));
            if (entry is not { } cited)
                continue;
            var at = words.Length;
            // Behind its stop it still belongs to the sentence.
            while (isRaised && at > 0 && words[at - 1] is '.' or ',' or ';' or '?' or '!')
                at--;
            words.Insert(at, CitingSentences.Mark(cited));
        }
        return Blanks.Single(words.ToString());
    }

    /// <summary>Whether the numbers of a list are made by the page, or stand before its entries.</summary>
    private static bool IsNumbered(TextBlock[] entries) =>
        entries.Count(e => e.Element.Closest("ol") is not null || e.Text[0] == '[' || char.IsAsciiDigit(e.Text[0])) * 5
        >= entries.Length * 4;
}

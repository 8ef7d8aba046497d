using System.Collections.Immutable;
using System.Xml;
using System.Xml.Linq;
using Zendle.Core.Records;

namespace Zendle.Core.Terms;

/// <summary>What was given as a vocabulary cannot be read as one; the message is a sentence for people.</summary>
public sealed class VocabularyFaultException(string sentence, Exception? inner = null) : Exception(sentence, inner);

/// <summary>
/// Reads a controlled vocabulary in SKOS (W3C 2009) written as RDF/XML (W3C 2014): concepts as elements of their own or
/// as descriptions with a type, with labels and with what is broader and narrower. Of labels in several languages the
/// English ones are taken, else those without a language; Latin names are taken always. No DTDs.
/// </summary>
public static class SkosReader
{
    /// <summary>Most concepts of a vocabulary.</summary>
    public const int MostConcepts = 200_000;

    /// <summary>Most characters of its document.</summary>
    public const long MostCharacters = 60_000_000;

    private const int MostLabels = 200,
        LongestLabel = 300,
        Deepest = 64;
    private static readonly XNamespace Skos = "http://www.w3.org/2004/02/skos/core#";
    private static readonly XNamespace Rdf = "http://www.w3.org/1999/02/22-rdf-syntax-ns#";

    private sealed class Draft
    {
        public List<(string Text, string Language)> Preferred { get; } = [];
        public List<(string Text, string Language)> Others { get; } = [];
        public HashSet<string> Broader { get; } = [];
        public HashSet<string> Narrower { get; } = [];
        public bool IsConcept { get; set; }
    }

    /// <summary>Reads a vocabulary. O(document).</summary>
    /// <param name="document">The document.</param>
    /// <exception cref="VocabularyFaultException">It is no SKOS in RDF/XML, or larger than a vocabulary can be.</exception>
    public static Vocabulary Read(byte[] document)
    {
        var drafts = new Dictionary<string, Draft>(StringComparer.Ordinal);
        try
        {
            LookAtDepth(document);
            using var reader = XmlReader.Create(new MemoryStream(document), Settings);
            reader.MoveToContent();
            if (reader.NamespaceURI != Rdf.NamespaceName || reader.LocalName != "RDF")
                throw new VocabularyFaultException(
                    "This is not a vocabulary in RDF/XML: its first element is not rdf:RDF."
                );
            reader.Read();
            while (!reader.EOF && reader.NodeType != XmlNodeType.EndElement)
                if (reader.NodeType == XmlNodeType.Element && XNode.ReadFrom(reader) is XElement element)
                    Take(element, drafts);
                else if (reader.NodeType != XmlNodeType.Element)
                    reader.Read();
        }
        catch (XmlException e) when (e.Message.Contains("DTD", StringComparison.Ordinal))
        {
            throw new VocabularyFaultException("The document has a DTD, which Zendle does not read, for safety.", e);
        }
        catch (XmlException e)
        {
            throw new VocabularyFaultException("This is not a vocabulary in RDF/XML: it is not well-formed XML.", e);
        }
        return Made(drafts);
    }

    private static XmlReaderSettings Settings =>
        new()
        {
            DtdProcessing = DtdProcessing.Prohibit,
            XmlResolver = null,
            MaxCharactersInDocument = MostCharacters,
            IgnoreComments = true,
            IgnoreProcessingInstructions = true,
        };

    /// <summary>Elements in elements without end cost a reader time by the square of their depth.</summary>
    private static void LookAtDepth(byte[] document)
    {
        using var reader = XmlReader.Create(new MemoryStream(document), Settings);
        while (reader.Read())
            if (reader.Depth > Deepest)
                throw new VocabularyFaultException("This is not a vocabulary: its elements are nested too deeply.");
    }

    /// <summary>Takes what an element says of a concept; concepts may stand inside what names them.</summary>
    private static void Take(XElement element, Dictionary<string, Draft> drafts)
    {
        if (NameOf(element) is not { } name)
            return;
        if (!drafts.TryGetValue(name, out var draft))
        {
            if (drafts.Count >= MostConcepts * 2)
                throw new VocabularyFaultException($"A vocabulary has at most {MostConcepts:N0} concepts.");
            drafts.Add(name, draft = new());
        }
        draft.IsConcept |=
            element.Name == Skos + "Concept"
            || element
                .Elements(Rdf + "type")
                .Any(t => t.Attribute(Rdf + "resource")?.Value == Skos.NamespaceName + "Concept");
        foreach (var (labels, kind) in new[] { (draft.Preferred, "prefLabel"), (draft.Others, "altLabel") })
        {
            // A plain label may be written as an attribute (RDF/XML, section 2.5).
            if (element.Attribute(Skos + kind) is { } plain)
                Label(labels, plain.Value, "");
            foreach (var label in element.Elements(Skos + kind))
                Label(labels, label.Value, LanguageOf(label));
        }
        foreach (var (ties, kind) in new[] { (draft.Broader, "broader"), (draft.Narrower, "narrower") })
        foreach (var tie in element.Elements(Skos + kind))
        {
            if (tie.Attribute(Rdf + "resource")?.Value is { Length: > 0 } there)
                ties.Add(there);
            foreach (var inside in tie.Elements())
                if (NameOf(inside) is { } nested)
                {
                    ties.Add(nested);
                    Take(inside, drafts);
                }
        }
    }

    private static void Label(List<(string, string)> labels, string text, string language)
    {
        var plain = PlainText.Clean(text);
        if (plain.Length is > 0 and <= LongestLabel && labels.Count < MostLabels)
            labels.Add((plain, language));
    }

    /// <summary>The language of a label, two letters and lower case; empty where none is said.</summary>
    private static string LanguageOf(XElement label) =>
        label
            .AncestorsAndSelf()
            .Select(e => e.Attribute(XNamespace.Xml + "lang")?.Value)
            .FirstOrDefault(l => l is not null)
            ?.Split('-')[0]
            .ToLowerInvariant()
        ?? "";

    private static string? NameOf(XElement element) =>
        element.Attribute(Rdf + "about")?.Value
        ?? (element.Attribute(Rdf + "ID") is { } id ? "#" + id.Value : element.Attribute(Rdf + "nodeID")?.Value);

    private static Vocabulary Made(Dictionary<string, Draft> drafts)
    {
        var named = drafts
            .Where(d => d.Value.IsConcept && d.Value.Preferred.Count > 0)
            .Select(d => (d.Key, Draft: d.Value, Label: Chosen(d.Value.Preferred)))
            .ToArray();
        if (named.Length == 0)
            throw new VocabularyFaultException("The document holds no SKOS concept with a label.");
        if (named.Length > MostConcepts)
            throw new VocabularyFaultException($"A vocabulary has at most {MostConcepts:N0} concepts.");
        var numbers = named.Select((n, i) => (n.Key, i)).ToDictionary(n => n.Key, n => n.i, StringComparer.Ordinal);
        // Either side may tell a tie; both have it.
        var (broader, narrower) = (new SortedSet<int>[named.Length], new SortedSet<int>[named.Length]);
        for (var i = 0; i < named.Length; i++)
            (broader[i], narrower[i]) = ([], []);
        void Tie(int below, int above)
        {
            if (below == above)
                return;
            broader[below].Add(above);
            narrower[above].Add(below);
        }
        for (var i = 0; i < named.Length; i++)
        {
            foreach (var above in named[i].Draft.Broader)
                if (numbers.TryGetValue(above, out var n))
                    Tie(i, n);
            foreach (var below in named[i].Draft.Narrower)
                if (numbers.TryGetValue(below, out var n))
                    Tie(n, i);
        }
        return new([
            .. named.Select(
                (n, i) =>
                    new VocabularyConcept(
                        n.Label,
                        [
                            .. n
                                .Draft.Others.Where(o => o.Language is "en" or "" or "la")
                                .Concat(n.Draft.Preferred.Where(p => p.Language == "la"))
                                .Select(o => o.Text)
                                .Where(o => !o.Equals(n.Label, StringComparison.OrdinalIgnoreCase))
                                .Distinct(StringComparer.OrdinalIgnoreCase),
                        ],
                        [.. broader[i]],
                        [.. narrower[i]]
                    )
            ),
        ]);
    }

    private static string Chosen(List<(string Text, string Language)> labels)
    {
        foreach (var language in (string[])["en", "", "la"])
            if (labels.FirstOrDefault(l => l.Language == language) is { Text: not null } found)
                return found.Text;
        return labels[0].Text;
    }
}

using System.Xml.Linq;

namespace Zendle.Outside.World.Databases;

/// <summary>
/// The controlled vocabulary of the life-science index: one term for each idea, under the area it belongs to, as SKOS.
/// </summary>
public static class Vocabulary
{
    private static readonly XNamespace Skos = "http://www.w3.org/2004/02/skos/core#";
    private static readonly XNamespace Rdf = "http://www.w3.org/1999/02/22-rdf-syntax-ns#";

    /// <summary>The terms given to a work: of its topic the first two ideas, what was measured, and its area.</summary>
    public static string[] Of(Work w) =>
        [.. w.Topic.Keywords.Take(2).Select(Term).Append(Term(w.Study.Response)).Append(w.Topic.Area).Distinct()];

    /// <summary>
    /// The vocabulary as SKOS in RDF/XML: each concept with its label, the broader one, and the older words it stands
    /// for.
    /// </summary>
    public static XDocument Skosified(Scenario scenario, string host)
    {
        var scheme = host + "/lifeleaf/vocabulary";
        XElement Concept(string label, string? broader, IEnumerable<string> others) =>
            new(
                Skos + "Concept",
                new XAttribute(Rdf + "about", $"{scheme}#{Slug(label)}"),
                new XElement(Skos + "prefLabel", new XAttribute(XNamespace.Xml + "lang", "en"), label),
                others.Select(o => new XElement(Skos + "altLabel", new XAttribute(XNamespace.Xml + "lang", "en"), o)),
                broader is null
                    ? new XElement(Skos + "topConceptOf", new XAttribute(Rdf + "resource", scheme))
                    : new XElement(Skos + "broader", new XAttribute(Rdf + "resource", $"{scheme}#{Slug(broader)}")),
                new XElement(Skos + "inScheme", new XAttribute(Rdf + "resource", scheme))
            );
        var terms = scenario
            .Topics.Where(t => LifeleafView.Areas.Contains(t.Area))
            .SelectMany(t => t.Keywords.Take(2).Concat(t.Responses).Select(k => (Word: k, Term: Term(k), t.Area)));
        return new(
            new XElement(
                Rdf + "RDF",
                new XAttribute(XNamespace.Xmlns + "rdf", Rdf),
                new XAttribute(XNamespace.Xmlns + "skos", Skos),
                new XElement(Skos + "ConceptScheme", new XAttribute(Rdf + "about", scheme)),
                LifeleafView.Areas.Order(StringComparer.Ordinal).Select(a => Concept(a, null, [])),
                terms
                    .GroupBy(t => t.Term, StringComparer.OrdinalIgnoreCase)
                    .OrderBy(g => g.Key, StringComparer.Ordinal)
                    .Select(g =>
                        Concept(g.Key, g.First().Area, g.Select(t => t.Word).Where(x => x != g.Key).Distinct())
                    )
            )
        );
    }

    private static string Term(string word) => char.ToUpperInvariant(word[0]) + word[1..];

    private static string Slug(string label) => label.ToLowerInvariant().Replace(' ', '-');
}

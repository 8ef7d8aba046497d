using System.Text;
using Xunit;
using Zendle.Core.Queries;
using Zendle.Core.Terms;

namespace Zendle.Core.Tests.Terms;

public class SkosReaderTests
{
    private const string Head =
        """<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns:skos="http://www.w3.org/2004/02/skos/core#">""";

    private static Vocabulary Read(string body, string head = Head, string foot = "</rdf:RDF>") =>
        SkosReader.Read(Encoding.UTF8.GetBytes(head + body + foot));

    private static string Told(Vocabulary v, string label)
    {
        var c = v.Concepts.Single(x => x.Label == label);
        return $"{string.Join('|', c.Others)} > {string.Join('|', c.Broader.Select(b => v.Concepts[b].Label))} < "
            + string.Join('|', c.Narrower.Select(n => v.Concepts[n].Label));
    }

    [Fact]
    public void Concepts_have_their_labels_and_are_tied_from_either_side()
    {
        var v = Read(
            """
            <skos:Concept rdf:about="v#moths">
              <skos:prefLabel xml:lang="de">Nachtfalter</skos:prefLabel>
              <skos:prefLabel xml:lang="en">Moths</skos:prefLabel>
              <skos:prefLabel xml:lang="la">Heterocera</skos:prefLabel>
              <skos:altLabel xml:lang="en-GB">night-flying Lepidoptera</skos:altLabel>
              <skos:altLabel xml:lang="de">Motten</skos:altLabel>
              <skos:broader rdf:resource="v#insects"/>
            </skos:Concept>
            <skos:Concept rdf:about="v#insects">
            <skos:prefLabel>Insects</skos:prefLabel><skos:narrower rdf:resource="v#bees"/></skos:Concept>
            <skos:Concept rdf:about="v#bees"><skos:prefLabel>Bees</skos:prefLabel></skos:Concept>
            """
        );
        Assert.Equal(3, v.Concepts.Length);
        Assert.Equal("night-flying Lepidoptera|Heterocera > Insects < ", Told(v, "Moths"));
        Assert.Equal(" >  < Moths|Bees", Told(v, "Insects"));
        Assert.Equal(" > Insects < ", Told(v, "Bees"));
    }

    [Fact]
    public void Other_ways_to_write_RDF_say_the_same()
    {
        var v = Read(
            """
            <rdf:Description rdf:about="v#a"><rdf:type rdf:resource="http://www.w3.org/2004/02/skos/core#Concept"/>
              <skos:prefLabel>Lamps</skos:prefLabel>
              <skos:narrower><skos:Concept rdf:about="v#b" skos:prefLabel="Street lamps"/></skos:narrower>
            </rdf:Description>
            <rdf:Description rdf:about="v#a"><skos:altLabel>Luminaires</skos:altLabel></rdf:Description>
            <rdf:Description rdf:about="v#c"><skos:prefLabel>No concept</skos:prefLabel></rdf:Description>
            """
        );
        Assert.Equal(["Lamps", "Street lamps"], v.Concepts.Select(c => c.Label));
        Assert.Equal("Luminaires >  < Street lamps", Told(v, "Lamps"));
    }

    [Fact]
    public void Circles_and_ties_to_nothing_are_harmless()
    {
        var v = Read(
            """
            <skos:Concept rdf:about="v#a"><skos:prefLabel>A</skos:prefLabel><skos:broader rdf:resource="v#a"/>
              <skos:broader rdf:resource="v#b"/><skos:broader rdf:resource="v#gone"/></skos:Concept>
            <skos:Concept rdf:about="v#b"><skos:prefLabel>B</skos:prefLabel><skos:broader rdf:resource="v#a"/></skos:Concept>
            """
        );
        Assert.Equal(" > B < B", Told(v, "A"));
    }

    [Theory]
    [InlineData("moths", "Moths")]
    [InlineData("moth*", "Moths")]
    [InlineData("street lamps", "Street lamps")]
    [InlineData("luminaires", "Street lamps")]
    [InlineData("lamps", "")]
    [InlineData("street", "")]
    public void A_term_finds_the_concept_that_has_just_its_words(string words, string label)
    {
        var v = Read(
            """
            <skos:Concept rdf:about="v#m"><skos:prefLabel>Moths</skos:prefLabel></skos:Concept>
            <skos:Concept rdf:about="v#s">
            <skos:prefLabel>Street lamps</skos:prefLabel><skos:altLabel>Luminaires</skos:altLabel></skos:Concept>
            """
        );
        Assert.Equal(
            label,
            string.Join('|', v.Find((TermNode)QueryReader.Read($"\"{words}\"").Root!).Select(c => v.Concepts[c].Label))
        );
    }

    [Theory]
    [InlineData("<html><body>Not found</body></html>", "first element is not rdf:RDF")]
    [InlineData("no XML at all", "not well-formed")]
    [InlineData("<!DOCTYPE r [<!ENTITY a 'b'>]><r/>", "DTD")]
    public void What_is_no_vocabulary_is_refused_with_a_sentence(string document, string says)
    {
        var fault = Assert.Throws<VocabularyFaultException>(() => Read(document, "", ""));
        Assert.Contains(says, fault.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_vocabulary_without_labels_is_none() =>
        Assert.Throws<VocabularyFaultException>(() => Read("""<skos:Concept rdf:about="v#a"/>"""));

    [Fact]
    public void Concepts_in_concepts_without_end_are_refused_at_once()
    {
        var deep = string.Concat(
            Enumerable
                .Range(0, 20_000)
                .Select(i =>
                    $"""<skos:Concept rdf:about="v#{i}"><skos:prefLabel>c{i}</skos:prefLabel><skos:narrower>"""
                )
                .Concat(Enumerable.Repeat("</skos:narrower></skos:Concept>", 20_000))
        );
        Assert.Throws<VocabularyFaultException>(() => Read(deep));
    }
}

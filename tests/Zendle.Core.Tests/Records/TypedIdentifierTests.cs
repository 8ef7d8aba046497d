using Xunit;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Records;

public class TypedIdentifierTests
{
    [Theory]
    [InlineData("10.5555/ABC.1", IdentifierKind.Doi, "10.5555/abc.1")]
    [InlineData(" doi: 10.5555/abc ", IdentifierKind.Doi, "10.5555/abc")]
    [InlineData("https://doi.org/10.5555/abc", IdentifierKind.Doi, "10.5555/abc")]
    // 978030640615: 9+21+8+0+3+0+6+12+0+18+1+15 = 93, so the check digit is 7 (ISO 2108).
    [InlineData("978-0-306-40615-7", IdentifierKind.Isbn, "9780306406157")]
    [InlineData("ISBN 0-306-40615-2", IdentifierKind.Isbn, "9780306406157")]
    // 2434561: 2*8+4*7+3*6+4*5+5*4+6*3+1*2 = 122, 122 mod 11 = 1, so the check digit is X (ISO 3297).
    [InlineData("ISBN-13 (print): 978-0-306-40615-7", IdentifierKind.Isbn, "9780306406157")]
    [InlineData("978-0-306-40615-7 (hbk.)", IdentifierKind.Isbn, "9780306406157")]
    [InlineData("2434-561X", IdentifierKind.Issn, "2434-561X")]
    [InlineData("eISSN 2434-561x", IdentifierKind.Issn, "2434-561X")]
    [InlineData("ISSN: 2434-561X", IdentifierKind.Issn, "2434-561X")]
    [InlineData("0000-0001-2345-6789", IdentifierKind.Orcid, "0000-0001-2345-6789")]
    [InlineData("https://orcid.org/0000-0001-2345-6789", IdentifierKind.Orcid, "0000-0001-2345-6789")]
    [InlineData("ORCID iD: 0000000123456789", IdentifierKind.Orcid, "0000-0001-2345-6789")]
    [InlineData("https://repository.example/item/7?v=2", IdentifierKind.Url, "https://repository.example/item/7?v=2")]
    public void A_line_that_is_an_identifier_is_known_for_it(string line, IdentifierKind kind, string value) =>
        Assert.Equal(new TypedIdentifier(kind, value), TypedIdentifier.Of(line));

    [Theory]
    [InlineData("")]
    [InlineData("moths")]
    [InlineData("978-0-306-40615-8")]
    [InlineData("2434-5610")]
    [InlineData("0000-0001-2345-6788")]
    [InlineData("lamps 0000-0001-2345-6789")]
    [InlineData("light AND moth* AND year:1990-2026")]
    [InlineData("lamps 978-0-306-40615-7")]
    [InlineData("1990-2005")]
    [InlineData("2000–2016")]
    [InlineData("Berg, M. (2014). Moths at the lamps of small harbours. Night Letters 12, 4. doi:10.5555/abc")]
    [InlineData("ftp://repository.example/item")]
    public void Words_and_whole_references_are_none(string line) => Assert.Null(TypedIdentifier.Of(line));

    [Theory]
    [InlineData("https://www.Repository.example/Item/7/", "repository.example/Item/7")]
    [InlineData("http://repository.example/Item/7#page", "repository.example/Item/7")]
    [InlineData("http://repository.example:8080/x?a=1", "repository.example:8080/x?a=1")]
    [InlineData("repository.example", null)]
    public void Addresses_are_compared_without_what_does_not_matter(string address, string? key) =>
        Assert.Equal(key, WebAddress.Key(address));
}

using Zendle.Core.Records;

namespace Zendle.Core.Tests.Records;

public sealed class IdentifiersTests
{
    [Theory]
    [InlineData("10.5555/ABC.12", "10.5555/abc.12")]
    [InlineData("doi:10.5555/abc.12.", "10.5555/abc.12")]
    [InlineData("https://doi.org/10.5555/ABC%2F12", "10.5555/abc/12")]
    [InlineData("(see 10.5555/a(1)b)", "10.5555/a(1)b")]
    [InlineData("11.5555/abc", null)]
    // SICIs of one issue differ only within and behind their angle brackets
    [InlineData(
        "10.5555/(SICI)1097-4571(199806)49:8<693::AID-ASI4>3.0.CO;2-O",
        "10.5555/(sici)1097-4571(199806)49:8<693::aid-asi4>3.0.co;2-o"
    )]
    [InlineData(
        "10.5555/(SICI)1097-4571(199806)49:8<701::AID-ASI5>3.0.CO;2-P",
        "10.5555/(sici)1097-4571(199806)49:8<701::aid-asi5>3.0.co;2-p"
    )]
    [InlineData(
        "10.5555/(SICI)1097-4571(199806)49:8&lt;693::AID-ASI4&gt;3.0.CO;2-O",
        "10.5555/(sici)1097-4571(199806)49:8<693::aid-asi4>3.0.co;2-o"
    )]
    [InlineData(
        "https://doi.org/10.5555/(SICI)1097-4571(199806)49:8%3C693::AID-ASI4%3E3.0.CO;2-O",
        "10.5555/(sici)1097-4571(199806)49:8<693::aid-asi4>3.0.co;2-o"
    )]
    [InlineData("10.5555/0024(1987)068<0001:MOTHSL>2.0.CO;2", "10.5555/0024(1987)068<0001:mothsl>2.0.co;2")]
    [InlineData("see 10.5555/0024(1987)068<0001:MOTHSL>2.0.CO;2.", "10.5555/0024(1987)068<0001:mothsl>2.0.co;2")]
    [InlineData("<a>10.5555/abc</a>", "10.5555/abc")]
    [InlineData("10.5555/abc<br/>next", "10.5555/abc")]
    [InlineData("info:doi/10.5555/ABC", "10.5555/abc")]
    [InlineData("DOI: 10.5555/abc;", "10.5555/abc")]
    [InlineData("[10.5555/abc]", "10.5555/abc")]
    [InlineData("10.5555/0022-0000[91]90001-x", "10.5555/0022-0000[91]90001-x")]
    [InlineData("10.5555.12/abc", "10.5555.12/abc")]
    [InlineData("https://doi.org/10.5555/abc?locatt=mode:legacy", "10.5555/abc")]
    [InlineData("https://doi.org/10.5555/abc#sec1", "10.5555/abc")]
    [InlineData("http://dx.doi.org/10.5555/a%3Fb", "10.5555/a?b")]
    [InlineData("https://press.example/doi/full/10.5555/abc.12", "10.5555/abc.12")]
    [InlineData("https://press.example/articles/10.5555/abc.12/full", "10.5555/abc.12")]
    [InlineData("https://press.example/get?doi=10.5555/abc.12", "10.5555/abc.12")]
    [InlineData("10.5555/a;10.5555/b", "10.5555/a")]
    [InlineData("“10.5555/abc”", "10.5555/abc")]
    [InlineData("version 2.10.5555/abc", null)]
    [InlineData("10.5555/x", "10.5555/x")]
    [InlineData("", null)]
    [InlineData(null, null)]
    public void Doi_in_any_dress(string? text, string? doi) => Assert.Equal(doi, Identifiers.Doi(text));

    // Check digits worked out by hand after ISO 3297: 0·8+3·7+7·6+8·5+5·4+9·3+5·2 = 160; 11 − 160 mod 11 = 5.
    [Theory]
    [InlineData("03785955", "0378-5955")]
    [InlineData("0378-5955", "0378-5955")]
    [InlineData("0378-5954", null)]
    [InlineData("2434-561x", "2434-561X")]
    [InlineData("037-5955", null)]
    [InlineData("ISSN 2434-561X", "2434-561X")]
    [InlineData("issn: 0378-5955 (print)", "0378-5955")]
    [InlineData("2434-561X (online)", "2434-561X")]
    [InlineData("urn:ISSN:0378-5955", "0378-5955")]
    [InlineData("ISSN 03785955", "0378-5955")]
    [InlineData("ISSN 0378-5954; 2434-561X", "2434-561X")]
    [InlineData("pages 1234-5678", null)]
    public void Issn_needs_its_check_digit(string text, string? issn) => Assert.Equal(issn, Identifiers.Issn(text));

    // ISBN-10 0-306-40615-2 and its thirteen-digit form 978-0-306-40615-7 are the worked example of ISO 2108's users'
    // manual.
    [Theory]
    [InlineData("0-306-40615-2", "9780306406157")]
    [InlineData("978-0-306-40615-7", "9780306406157")]
    [InlineData("978-0-306-40615-8", null)]
    [InlineData("ISBN 978-0-306-40615-7 (pbk.)", "9780306406157")]
    [InlineData("urn:isbn:0306406152", "9780306406157")]
    [InlineData("ISBN-13: 978 0 306 40615 7", "9780306406157")]
    [InlineData("ISBN-10: 0-306-40615-2", "9780306406157")]
    [InlineData("hardcover ISBN: 9780306406157, ebook 12 EUR", "9780306406157")]
    [InlineData("report 0306406152 of the year", null)]
    public void Isbn_becomes_thirteen_digits(string text, string? isbn) => Assert.Equal(isbn, Identifiers.Isbn(text));

    // 0000-0002-1825-0097 is the example in the ORCID documentation of ISO 7064 MOD 11-2.
    [Theory]
    [InlineData("https://orcid.org/0000-0002-1825-0097", "0000-0002-1825-0097")]
    [InlineData("0000-0002-1825-0098", null)]
    public void Orcid_needs_its_check_digit(string text, string? orcid) => Assert.Equal(orcid, Identifiers.Orcid(text));

    [Theory]
    [InlineData("Moths &amp;amp; lamps", "Moths & lamps")]
    [InlineData("<i>Hyles</i> at  <b>night</b>\n", "Hyles at night")]
    [InlineData("p < 0.05 and n > 3", "p < 0.05 and n > 3")]
    [InlineData("where T<Topt and depth>3 m it fell", "where T<Topt and depth>3 m it fell")]
    [InlineData("a<b and c>d", "a<b and c>d")]
    [InlineData("n<sub>i</sub><5 or x>y", "ni<5 or x>y")]
    [InlineData("CO<sub>2</sub> and m<sup>2</sup>, 10<sup>−3</sup>", "CO₂ and m², 10⁻³")]
    [InlineData("pre<i>fix</i>ed, <em>Hyles</em>", "prefixed, Hyles")]
    [InlineData("one<p>two</p>three", "one two three")]
    [InlineData("<jats:p>Lamps &lt;i&gt;glow&lt;/i&gt;.</jats:p><jats:p>More.</jats:p>", "Lamps glow. More.")]
    [InlineData("<jats:sec><jats:title>Aim</jats:title>Moths</jats:sec>", "Aim Moths")]
    [InlineData("<mml:math><mml:msub><mml:mi>x</mml:mi><mml:mn>1</mml:mn></mml:msub></mml:math> grew", "x1 grew")]
    [InlineData("<a href=\"http://x.example/?a=1\">link</a><br/>end<!-- gone -->", "link end")]
    [InlineData("between <unknown> and <other thing>", "between <unknown> and <other thing>")]
    [InlineData("$CO_2$ and $\\alpha$-pinene at $10^{-3}$", "CO₂ and α-pinene at 10⁻³")]
    [InlineData("$\\mathrm{H_2O}$, $p \\leq 0.05$", "H₂O, p ≤0.05")]
    [InlineData("it cost $5 then and $10 now", "it cost $5 then and $10 now")]
    [InlineData("5 &lt; 6 &amp;amp; 7 &gt; 6", "5 < 6 & 7 > 6")]
    [InlineData("a\u0000b\u202Ec", "abc")]
    public void Text_is_made_plain(string raw, string plain) => Assert.Equal(plain, PlainText.Clean(raw));

    [Theory]
    [InlineData("Marisol Kea", "M. K.")]
    [InlineData("Jean-Luc", "J.-L.")]
    [InlineData("m.", "M.")]
    public void Initials(string given, string initials) => Assert.Equal(initials, new PersonName("X", given).Initials);
}

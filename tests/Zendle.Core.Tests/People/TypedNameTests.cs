using Zendle.Core.Entries;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

/// <summary>A name as somebody types it, held against names as lists print them.</summary>
public sealed class TypedNameTests
{
    [Theory]
    [InlineData("Berg", "Berg, Mei", true)]
    [InlineData("Berg", "van der Berg, M.", true)]
    [InlineData("Berg", "Bergström, M.", false)]
    [InlineData("Berg*", "Bergström, M.", true)]
    [InlineData("Berg, M", "Berg, Mei", true)]
    [InlineData("Berg, M", "Berg, K.", false)]
    [InlineData("Berg, Mei", "Berg, M.", true)]
    [InlineData("Mei Berg", "Berg, M. K.", true)]
    [InlineData("Müller, J", "Mueller, J.", true)]
    [InlineData("Berg, M*", "Berg", false)]
    [InlineData("Ostström-Lin", "Ostström-Lin, T.", true)]
    // A family name of two words, with or without a hyphen, and what texts and letters put around a name.
    [InlineData("Ostström Lin", "Ostström-Lin, T.", true)]
    [InlineData("Ruiz Vidal", "Ruiz Vidal, A.", true)]
    [InlineData("Ruiz Vidal", "Ruiz, A.", false)]
    [InlineData("Ruiz V.", "Ruiz-Vega, A.", false)]
    [InlineData("Ruiz V.", "Ruiz-Vega, V.", true)]
    [InlineData("Berg et al.", "Berg, M.", true)]
    [InlineData("Berg et al. (2019a)", "Berg, M.", true)]
    [InlineData("Berg & others 2010", "Berg, M.", true)]
    [InlineData("Berg and colleagues (2010)", "Berg, M.", true)]
    [InlineData("Berg u. a. 2010", "Berg, M.", true)]
    [InlineData("Berg y cols.", "Berg, M.", true)]
    [InlineData("Berg, U. A.", "Berg, M.", false)]
    [InlineData("Berg, U. A.", "Berg, Ulla A.", true)]
    [InlineData("«Berg»", "Berg, M.", true)]
    [InlineData("“Berg et al.”,", "Berg, M.", true)]
    [InlineData("Berg, M. (ed.)", "Berg, M.", true)]
    [InlineData("Prof. Dr. Mei Berg", "Berg, M.", true)]
    [InlineData("Prof. Dr. Mei Berg", "Dragan, M.", false)]
    public void A_typed_name_fits_the_names_that_can_be_it(string typed, string name, bool fits) =>
        Assert.Equal(fits, TypedName.Of(typed)!.Fits(PersonLabel.Read(name)));

    [Theory]
    [InlineData("Berg, Mei", "Berg, M.", true)]
    [InlineData("Berg, Mei", "Berg, Mei K.", false)]
    [InlineData("Berg, M", "Berg, M.", false)]
    [InlineData("Mei Berg", "Berg, M.", true)]
    [InlineData("Berg", "Berg, M.", false)]
    [InlineData("Berg*", "Berg", false)]
    public void A_name_that_says_less_is_doubtful(string typed, string name, bool doubtful) =>
        Assert.Equal(doubtful, TypedName.Of(typed)!.IsDoubtful(PersonLabel.Read(name)));

    [Theory]
    [InlineData("Berg; Lind", true)]
    [InlineData("Berg & Lind 2019", true)]
    [InlineData("M. Berg and P. Lind", true)]
    [InlineData("Berg and others", false)]
    [InlineData("Berg & colleagues", false)]
    [InlineData("Berg, Mei", false)]
    [InlineData("Andersen", false)]
    [InlineData("Band Sand", false)]
    public void Several_names_are_told(string typed, bool several) =>
        Assert.Equal(several, TypedName.AreSeveral(typed));

    [Theory]
    [InlineData("")]
    [InlineData("12 ***")]
    [InlineData("et al. 2019")]
    public void What_has_no_letters_is_no_name(string typed) => Assert.Null(TypedName.Of(typed));

    [Theory]
    [InlineData("Berg, M. K. & Ilo, T. (1998). Night visits to campion. Hedge Ecology 12, 118.", "Berg, M. K.|Ilo, T.")]
    [InlineData("Berg MK, Ilo T. Night visits to campion. Hedge Ecol. 1998;12:118.", "Berg, M. K.|Ilo, T.")]
    [InlineData("BERG M.K., ILO T. (1998) Night visits to campion. Hedge Ecology 12: 118.", "Berg, M. K.|Ilo, T.")]
    [InlineData(
        "Berg M.K., van der Ilo T. Night visits to campion. Hedge Ecol. 1998;12:118.",
        "Berg, M. K.|van der Ilo, T."
    )]
    [InlineData("10.5555/only.this", "")]
    [InlineData("", "")]
    public void The_people_of_a_printed_reference_are_written_one_way(string text, string people) =>
        Assert.Equal(people, string.Join('|', PrintedPeople.Of(new Reference(text))));

    [Fact]
    public void Of_a_reference_whose_people_cannot_be_read_the_first_is_known_by_the_database() =>
        Assert.Equal(["Berg"], PrintedPeople.Of(new Reference("10.5555/x", FirstPerson: "Berg")));
}

using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

public sealed class PersonLabelTests
{
    [Theory]
    // As it is written, also where another could be meant.
    [InlineData("Berg", "Kwame", "Berg, Kwame|Berg, K.", "Berg, Kwame")]
    [InlineData("Berg", "Kwame", "Berg, Kwame (Vessmark)|Alm, Ida", "Berg, Kwame (Vessmark)")]
    // The only one that it can be.
    [InlineData("Berg", "K.", "Alm, Ida|Berg, Kwame", "Berg, Kwame")]
    [InlineData("Berg", "Kwame", "Alm, Ida|Berg, K.", "Berg, K.")]
    // None, and two alike.
    [InlineData("Berg", "Kwame", "Alm, Ida|Berg, Ruth", null)]
    [InlineData("Berg", "K.", "Berg, Kwame|Berg, Kemi", null)]
    [InlineData("Berg", "Kwame", "Berg, Kwame (Vessmark)|Berg, Kwame (Orlund)", null)]
    public void A_name_of_a_work_is_one_of_its_people_where_that_is_certain(
        string family,
        string given,
        string labels,
        string? label
    ) => Assert.Equal(label, PersonLabel.Among(labels.Split('|'), new PersonName(family, given)));
}

using Xunit;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Entries;

public class PrintedNamesTests
{
    [Theory]
    [InlineData("Berg, M. K., & Lind, P.", "Berg, M. K.|Lind, P.")]
    [InlineData("Berg, M. K., Lind, P., and Moe, O.-T.", "Berg, M. K.|Lind, P.|Moe, O.-T.")]
    [InlineData("Berg MK, Lind P, Moe OT", "Berg, M. K.|Lind, P.|Moe, O. T.")]
    [InlineData("Berg MK", "Berg, M. K.")]
    [InlineData("M. K. Berg and P. Lind", "Berg, M. K.|Lind, P.")]
    [InlineData("M. K. Berg, P. Lind and O. van der Moe", "Berg, M. K.|Lind, P.|van der Moe, O.")]
    [InlineData("Berg, M. K., P. Lind, and O. Moe", "Berg, M. K.|Lind, P.|Moe, O.")]
    [InlineData("Berg, Mei, Per Lind, and Ola Moe", "Berg, Mei|Lind, Per|Moe, Ola")]
    [InlineData("LEE, K. and BERG-MOE, P.", "Lee, K.|Berg-Moe, P.")]
    [InlineData("BERG, Mei, LIND, Per K. and MOE, Ola", "Berg, Mei|Lind, Per K.|Moe, Ola")]
    [InlineData("Berg, Mei H., et al.", "Berg, Mei H.")]
    [InlineData("Osser, J.-L.; Dund, V.; Fuku, J.-L. N.", "Osser, J.-L.|Dund, V.|Fuku, J.-L. N.")]
    [InlineData("Berg, Mei Anna", "Berg, Mei Anna")]
    [InlineData("Mei Berg, Per Lind and Ola Moe", "Berg, Mei|Lind, Per|Moe, Ola")]
    [InlineData("Mei Anna Berg, Per Lind", "Berg, Mei Anna|Lind, Per")]
    [InlineData("Berg, Mei; Lind, Per; van der Moe, Ola", "Berg, Mei|Lind, Per|van der Moe, Ola")]
    [InlineData("Berg, Mei\nLind, Per\r\nOla van der Moe", "Berg, Mei|Lind, Per|van der Moe, Ola")]
    [InlineData("van der Berg, M., & de la Cruz, P.", "van der Berg, M.|de la Cruz, P.")]
    [InlineData("Berg, M., et al.", "Berg, M.")]
    [InlineData("Berg, M. & Lind, P. (Eds.)", "Berg, M.|Lind, P.")]
    [InlineData("Forum of Night Ecology", "Forum of Night Ecology")]
    [InlineData("Óskarsdóttir Þ, Ångman Ø", "Óskarsdóttir, Þ.|Ångman, Ø.")]
    [InlineData("", "")]
    [InlineData(" , ; & ", "")]
    public void Names_of_references_are_taken_apart(string printed, string expected) =>
        Assert.Equal(expected, string.Join('|', PrintedNames.Read(printed).Select(p => p.Inverted)));

    [Fact]
    public void A_list_of_lines_is_read_again_as_it_was_written() =>
        Assert.Equal(
            ["Berg, Mei", "Lind", "van der Moe, O. T."],
            PrintedNames.Read("Berg, Mei\nLind\nvan der Moe, O. T.").Select(p => p.Inverted)
        );
}

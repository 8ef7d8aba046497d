using CsCheck;
using Zendle.Core.Terms;

namespace Zendle.Core.Tests.Terms;

public class AbbreviationsTests
{
    /// <summary>The first five are examples of the paper (Schwartz and Hearst 2003).</summary>
    [Theory]
    [InlineData("heat shock transcription factor (HSF)", "HSF", "heat shock transcription factor")]
    [InlineData("the methyl methanesulfonate sulfate (MMS) was", "MMS", "methyl methanesulfonate sulfate")]
    [InlineData("Gcn5-related N-acetyltransferase (GNAT)", "GNAT", "Gcn5-related N-acetyltransferase")]
    [InlineData("the transcription of heat shock proteins (HSPs)", "HSPs", "heat shock proteins")]
    [InlineData("polymerase chain reaction (PCR; see below)", "PCR", "polymerase chain reaction")]
    [InlineData("We ask what artificial light at night (ALAN) does.", "ALAN", "artificial light at night")]
    [InlineData("ALAN (artificial light at night) does much", "ALAN", "artificial light at night")]
    [InlineData("Light-emitting diodes (LEDs)", "LEDs", "Light-emitting diodes")]
    [InlineData("vitamin B12 deficiency; correlated colour temperature (CCT)", "CCT", "correlated colour temperature")]
    public void One_that_a_text_explains_is_found(string text, string brief, string whole) =>
        Assert.Equal([new(brief, whole)], Abbreviations.In(text));

    [Theory]
    [InlineData("moths were caught (see below) and marked")]
    [InlineData("moths (Lepidoptera) at lamps")]
    [InlineData("in 24 plots (P < 0.05)")]
    [InlineData("the light (2014) was")]
    [InlineData("(ALAN)")]
    [InlineData("nothing that fits stands before (XQZ)")]
    [InlineData("as reported. LED (a) and LED (b)")]
    public void What_is_no_explanation_is_left(string text) => Assert.Empty(Abbreviations.In(text));

    [Fact]
    public void Any_text_can_be_read() =>
        Gen.Char["ab AB1-(.;“"]
            .Array[0, 40]
            .Select(c => new string(c))
            .Sample(text =>
            {
                foreach (var (brief, whole) in Abbreviations.In(text))
                {
                    Assert.True(whole.Length > brief.Length);
                    Assert.Contains(
                        whole,
                        text.Replace("  ", " ", StringComparison.Ordinal) + text,
                        StringComparison.Ordinal
                    );
                }
            });
}

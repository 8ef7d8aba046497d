using SkiaSharp;

namespace Zendle.Outside.Documents;

/// <summary>Draws the counts of a paper as a picture, for pages that have their figures beside them.</summary>
public static class CountFigure
{
    private const int Width = 640,
        Height = 320,
        Edge = 24;

    /// <summary>A PNG with two bars for each season.</summary>
    public static byte[] Png(CountTable counts)
    {
        using var surface = SKSurface.Create(new SKImageInfo(Width, Height));
        var canvas = surface.Canvas;
        canvas.Clear(SKColors.White);
        var most = Math.Max(1, counts.Rows.Max(r => Math.Max(r.Without, r.With)));
        var step = (Width - 2f * Edge) / counts.Rows.Count;
        using var dark = new SKPaint { Color = new SKColor(60, 60, 70) };
        using var pale = new SKPaint { Color = new SKColor(190, 190, 200) };
        for (var i = 0; i < counts.Rows.Count; i++)
        {
            Bar(counts.Rows[i].Without, Edge + i * step, dark);
            Bar(counts.Rows[i].With, Edge + i * step + step * 0.4f, pale);
        }
        using var image = surface.Snapshot();
        using var png = image.Encode(SKEncodedImageFormat.Png, 90);
        return png.ToArray();

        void Bar(int count, float left, SKPaint paint)
        {
            var height = (Height - 2f * Edge) * count / most;
            canvas.DrawRect(left, Height - Edge - height, step * 0.36f, height, paint);
        }
    }
}

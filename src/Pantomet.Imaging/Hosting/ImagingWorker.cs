using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Dressing;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Objects;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Hosting;

/// <summary>
/// Carries out orders, one at a time, and keeps the last decode and renderings so that another quality decodes nothing again.
/// </summary>
public sealed class ImagingWorker : IDisposable
{
    private const int MostRenderings = 4;

    private const int SmallSide = 400;

    private const int MostRead = 16;

    private readonly Dictionary<string, PictureFacts?> _read = [];

    private (string Key, PictureMaster Master)? _master;

    private readonly LinkedList<(string Key, RenderedPixels Pixels)> _renderings = new();

    /// <summary>Carries out an order. Failures of the imaging library come back as a refusal.</summary>
    /// <param name="request">The order.</param>
    /// <param name="meanwhile">Told what is known before the outcome is.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public ImagingResponse Do(ImagingRequest request, Action<ImagingResponse>? meanwhile = null, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(request);
        ImagingEngine.Start();
        ImagingEngine.UseThreads(request.Threads);
        if (request.SideFiles is { } folder)
        {
            SideFiles.Use(folder);
        }

        try
        {
            return request switch
            {
                ReadRequest read => Read(read),
                FontRequest font => Font(font),
                PreviewRequest preview => SmallCopy.Make(preview),
                VariantRequest variant => Variant(variant, meanwhile, cancel),
                DressRequest dress => Dressing(dress, cancel),
                CurveRequest curve => Curve(curve, cancel),
                DetectSubjectRequest look => Look(look),
                CompareRequest compare => Compare(compare),
                SketchRequest sketch => new() { Sketch = SketchReader.Read(sketch.Path) },
                _ => new() { Refusal = PictureTexts.ThisRequestIsNotKnown },
            };
        }
        catch (VipsException fault)
        {
            return ImagingResponse.Failed(
                ImagingFault.IsMemory(fault) ? ImagingFailure.TooLarge : ImagingFailure.Refused,
                ImagingFault.Sentence(fault, PictureTexts.ThePictureCouldNotBeDecoded)
            );
        }
    }

    /// <summary>Frees decode and renderings.</summary>
    public void Dispose()
    {
        foreach (var (_, pixels) in _renderings)
        {
            pixels.Dispose();
        }

        _renderings.Clear();
        _master?.Master.Dispose();
        _master = null;
    }

    private static ImagingResponse Read(ReadRequest request)
    {
        var read = PictureReader.ReadWhole(request.Path);
        return new() { Facts = read.Facts, Refusal = read.Refusal };
    }

    private static ImagingResponse Compare(CompareRequest request) =>
        LikenessGauge.Compare(request.Path, request.Reference) is { } likeness
            ? new() { Likeness = likeness.Score }
            : ImagingResponse.Failed(ImagingFailure.Refused, PictureTexts.ThePicturesHaveDifferentSizesAnd);

    private static ImagingResponse Look(DetectSubjectRequest request)
    {
        NetworkSession.UseThreads(request.Threads);
        return new() { Facts = SubjectDetector.Sought(request.Path, request.Facts) };
    }

    private static ImagingResponse Font(FontRequest request)
    {
        if (!FontFile.TryRead(request.Path, out var font, out var fault))
        {
            return ImagingResponse.Failed(ImagingFailure.Refused, fault!);
        }

        // Characters that lead nowhere may keep the drawing library busy for ever.
        using var watch = DrawingTime.Watch(PictureFormat.Svg);
        return TextDrawer.Draws(font!.Apart())
            ? new()
            : ImagingResponse.Failed(ImagingFailure.Refused, PictureTexts.ThisFontCannotDrawAnyText);
    }

    private ImagingResponse Variant(VariantRequest request, Action<ImagingResponse>? meanwhile, CancellationToken cancel)
    {
        if (WorkOf(request, request.Facts, request.Turn, request.Rules, out var fault) is not { } work)
        {
            return new() { Refusal = fault };
        }

        var source = new DeskPixels(this, work, cancel);
        if (request.Reference)
        {
            using var pixels = source.Still(request.Size is { } size && size != request.Plan.Size ? request.Plan.At(size) : request.Plan);
            File.WriteAllBytes(request.Output, LosslessPng.Write(pixels));
            return new();
        }

        // A file that is found lies there before it is told of: who waits for it need not wait for the rest.
        var written = false;
        void Found(WeighedFile found)
        {
            using (var output = File.Create(request.Output))
            {
                output.Write(found.Content.Span);
            }

            written = true;
            meanwhile?.Invoke(new() { Weighed = found });
        }

        var made = Made(request, source, Found, cancel);
        var response = OutcomeOf(made);
        if (made.File is { } file)
        {
            if (!written)
            {
                File.WriteAllBytes(request.Output, file);
            }

            if (request.Small is { } small)
            {
                using var lazy = Image.ThumbnailBuffer(file, SmallSide, height: SmallSide, size: Enums.Size.Down);
                using var copy = lazy.CopyMemory();
                copy.Webpsave(small, q: 80, effort: 0, keep: Enums.ForeignKeep.None);
                var placeholder = Placeholder.Of(copy);
                response = response with { Placeholder = placeholder.Data, Edge = placeholder.Edge };
            }
        }

        return new() { Variant = response };
    }

    private ImagingResponse Dressing(DressRequest request, CancellationToken cancel)
    {
        if (WorkOf(request, request.Facts, request.Turn, request.Rules, out var fault) is not { } work)
        {
            return new() { Refusal = fault };
        }

        using var pixels = new DeskPixels(this, work, cancel).Still(request.Plan);
        File.WriteAllBytes(request.Output, LosslessPng.Write(pixels, compression: 0));
        DressColours? colours = null;
        if (request.Colours)
        {
            using var plain = Plain(work, request.Plan);
            colours = Dresser.Colours(plain, work.Slot.Dress, pixels.Dressed, work.Slot.Uncovered, request.Keep);
        }

        return new() { Dress = new(pixels.Size, pixels.Dressed, colours) };
    }

    private ImagingResponse Curve(CurveRequest request, CancellationToken cancel)
    {
        if (WorkOf(request, request.Facts, request.Turn, request.Rules, out var fault) is not { } work)
        {
            return new() { Refusal = fault };
        }

        var source = new DeskPixels(this, work, cancel);
        var points = new List<CurvePoint>();
        foreach (var quality in request.Format == PictureFormat.Png ? [100] : request.Qualities)
        {
            cancel.ThrowIfCancellationRequested();
            var made = VariantMaker.ByHand(source, work.Slot, request.Plan, request.Format, quality);
            points.Add(new(made.Quality, made.File!.LongLength, made.Likeness!.Value.Score));
        }

        return new() { Curve = points };
    }

    private static MadeVariant Made(VariantRequest request, DeskPixels source, Action<WeighedFile> weighed, CancellationToken cancel)
    {
        var slot = source.Work.Slot;
        return request.Quality is { } quality
            ? VariantMaker.ByHand(source, slot, request.Plan, request.Format, quality, weighed)
            : VariantMaker.Make(
                source,
                slot with
                {
                    Each = false,
                    Types = request.Format is { } format ? [new(format)] : slot.Types,
                },
                request.Plan,
                weighed,
                cancel
            )[0];
    }

    private RenderedPixels Still(Work work, VariantPlan plan) => Dressed(work, plan, work.KeyOf(plan), () => Rendered(work, plan));

    private RenderedPixels Plain(Work work, VariantPlan plan) => Once(work.KeyOf(plan), () => Rendered(work, plan));

    private RenderedPixels Rendered(Work work, VariantPlan plan) =>
        work.Pair is { } pair
            ? PairMaker.Laid(pair, work.Slot, plan)
            : VariantRenderer.Render(MasterFor(work, plan), plan, work.Slot.Background, work.Slot.Sharpen);

    private RenderedPixels Moving(Work work, VariantPlan plan, CancellationToken cancel) =>
        Dressed(
            work,
            plan,
            $"{work.KeyOf(plan)}|moving",
            () => MovingPicture.Render(work.Path, work.Facts, work.Turn, work.Slot, plan, cancel)
        );

    // Plain pixels are kept beside dressed ones: another amount or word needs no other rendering.
    private RenderedPixels Dressed(Work work, VariantPlan plan, string key, Func<RenderedPixels> render) =>
        work.Slot.Dress == Dress.None
            ? Once(key, render)
            : Once($"{key}|{work.Slot.Dress}|{string.Join(';', plan.Kept)}", () => Dresser.Apply(Once(key, render), work.Slot, plan.Kept));

    private RenderedPixels Once(string key, Func<RenderedPixels> render)
    {
        for (var node = _renderings.First; node is not null; node = node.Next)
        {
            if (node.Value.Key == key)
            {
                _renderings.Remove(node);
                _renderings.AddFirst(node);
                return node.Value.Pixels.Shared();
            }
        }

        var pixels = render();
        _renderings.AddFirst((key, pixels));
        if (_renderings.Count > MostRenderings)
        {
            _renderings.Last!.Value.Pixels.Dispose();
            _renderings.RemoveLast();
        }

        return pixels.Shared();
    }

    // The decode of the last picture, whole, so that another frame or slot of it decodes nothing again.
    private PictureMaster MasterFor(Work work, VariantPlan plan)
    {
        if (_master is { } master && master.Key == work.Key && master.Master.Serves([plan]))
        {
            return master.Master;
        }

        _master?.Master.Dispose();
        _master = null;
        var decoded = PictureMaster.Decode(work.Path, work.Facts, [plan], work.Slot.Profile, whole: true, turn: work.Turn);
        _master = (work.Key, decoded);
        return decoded;
    }

    private static VariantResponse OutcomeOf(MadeVariant made) =>
        new(
            made.File is not null,
            made.Format,
            made.Size,
            made.Quality,
            made.Likeness?.Score,
            made.Likeness?.WorstTile,
            made.Encodes,
            made.Verdict,
            made.Reasons,
            made.Dressed
        );

    private sealed class DeskPixels(ImagingWorker worker, Work work, CancellationToken cancel) : IPixelSource
    {
        public Work Work => work;

        public PictureFacts Facts => work.Facts;

        public RenderedPixels Still(VariantPlan plan) => worker.Still(work, plan);

        public RenderedPixels Moving(VariantPlan plan) => worker.Moving(work, plan, cancel);
    }

    private Work? WorkOf(ImagingRequest request, PictureFacts facts, Turn turn, string rules, out string? refusal)
    {
        if (!RulesReader.TryRead(rules, out var book, out var fault))
        {
            refusal = fault!.ToString();
            return null;
        }

        var work = new Work(request.Path, facts, turn, book!.Destinations[0].Slots[0]);
        refusal = null;
        if (request.Pair is not { } pair)
        {
            return work;
        }

        var parts = new List<PairedOriginal>();
        foreach (var one in pair)
        {
            if (Known(one.Path) is not { } read)
            {
                refusal = PictureTexts.OneOfTheCombinedPicturesCould;
                return null;
            }

            parts.Add(new(one.Path, read with { Size = one.Turn.SizeOf(read.Size) }, one.Turn));
        }

        return work with
        {
            Pair = parts,
            Facts = PairMaker.FactsOf([.. parts.Select(part => part.Facts)]),
        };
    }

    // What pictures side by side are made of is read where they are laid: the order names files alone.
    private PictureFacts? Known(string path)
    {
        if (!_read.TryGetValue(path, out var known))
        {
            if (_read.Count >= MostRead)
            {
                _read.Clear();
            }

            known = PictureReader.ReadFacts(path).Facts is { } facts ? ContentReader.Read(path, facts) : null;
            _read[path] = known;
        }

        return known;
    }

    private sealed record Work(string Path, PictureFacts Facts, Turn Turn, Slot Slot)
    {
        /// <summary>The pictures side by side; null for a single one.</summary>
        public IReadOnlyList<PairedOriginal>? Pair { get; init; }

        public string Key => $"{Path}|{Turn}|{Slot.Profile}";

        public string KeyOf(VariantPlan plan) =>
            Pair is { } pair
                ? $"{KeyOf(pair, plan.Parts!)}|{plan.Size}|{Slot.Pair}|{Slot.Background}|{Slot.Sharpen}"
                : $"{Key}|{plan.Crop}|{plan.Size}|{plan.Content}|{plan.Place}|{Slot.Background}|{Slot.Sharpen}";

        private static string KeyOf(IReadOnlyList<PairedOriginal> pair, IReadOnlyList<PlacedPart> placed) =>
            string.Join('|', pair.Zip(placed, (one, part) => $"{one.Path}|{one.Turn}|{part}"));
    }
}

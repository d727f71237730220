"""What a PDF needs to be kept for long (ISO 19005-2, level B): metadata in XMP, and which colours its numbers mean."""

from collections.abc import Callable
from datetime import datetime
from functools import cache
from typing import Any
from xml.sax.saxutils import escape

from PIL import ImageCms
from reportlab.pdfbase.pdfdoc import PDFArray, PDFDictionary, PDFName, PDFStream, PDFString
from reportlab.pdfgen.canvas import Canvas

_XMP = """<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/"
 xmlns:pdf="http://ns.adobe.com/pdf/1.3/" xmlns:pdfaid="http://www.aiim.org/pdfa/ns/id/">
<pdfaid:part>2</pdfaid:part><pdfaid:conformance>B</pdfaid:conformance>
<dc:title><rdf:Alt><rdf:li xml:lang="x-default">{title}</rdf:li></rdf:Alt></dc:title>
<dc:creator><rdf:Seq><rdf:li>{author}</rdf:li></rdf:Seq></dc:creator>
<dc:description><rdf:Alt><rdf:li xml:lang="x-default">{subject}</rdf:li></rdf:Alt></dc:description>
<xmp:CreatorTool>Yarrow Lane</xmp:CreatorTool>{moments}
</rdf:Description></rdf:RDF></x:xmpmeta>
<?xpacket end="w"?>"""


@cache
def _srgb() -> bytes:
    return ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()


def _stream(content: bytes, **entries: Any) -> PDFStream:
    stream = PDFStream(content=content)
    stream.dictionary = PDFDictionary(entries)
    return stream


def make_archival(title: str, author: str, subject: str, at: datetime | None) -> Callable[..., Canvas]:
    """A canvas maker for reportlab that writes these beside the pages."""

    class Archival(Canvas):
        def save(self) -> None:
            document = self._doc
            moment = ""
            if at is not None:
                moment = f"<xmp:CreateDate>{at.isoformat(timespec='seconds')}</xmp:CreateDate>"
                zone = f"{at:%z}"
                stamp = f"D:{at:%Y%m%d%H%M%S}" + (f"{zone[:3]}'{zone[3:]}'" if zone else "")
                self.setDateFormatter(lambda *_: stamp)
            xmp = _XMP.format(title=escape(title), author=escape(author), subject=escape(subject), moments=moment)
            metadata = _stream(xmp.encode(), Type=PDFName("Metadata"), Subtype=PDFName("XML"))
            profile = document.Reference(_stream(_srgb(), N=3))
            intent = PDFDictionary(
                {
                    "Type": PDFName("OutputIntent"),
                    "S": PDFName("GTS_PDFA1"),
                    "OutputConditionIdentifier": PDFString("sRGB"),
                    "Info": PDFString("sRGB IEC61966-2.1"),
                    "DestOutputProfile": profile,
                }
            )
            document.Catalog.Metadata = document.Reference(metadata)
            document.Catalog.OutputIntents = PDFArray([intent])
            for name in ("Metadata", "OutputIntents"):
                if name not in document.Catalog.__NoDefault__:
                    document.Catalog.__NoDefault__ = [*document.Catalog.__NoDefault__, name]
            super().save()

    return Archival

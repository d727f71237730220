"""Words for the dialogs that ask for files."""

ENDINGS = "Photographs (*.jpg *.jpeg *.png *.tif *.tiff *.webp *.heic *.heif *.hif);;All files (*)"

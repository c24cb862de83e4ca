#include "render/UnderlayFile.h"

#include <QImageReader>

namespace lintel {

Outcome<std::shared_ptr<const UnderlayContent>> readUnderlay(const std::filesystem::path& file,
                                                             const KeepReading& keep) {
    auto out = std::make_shared<UnderlayContent>();
    if (isPicture(file)) {
        QImageReader reader(QString::fromStdString(file.string()));
        const QSize size = reader.size();
        if (!reader.canRead() || size.isEmpty())
            return Error{file.filename().string(), "the picture cannot be read: " + reader.errorString().toStdString(),
                         "Link a PNG or JPG file."};
        if (size.width() > 30000 || size.height() > 30000)
            return Error{file.filename().string(), "the picture is larger than 30 000 pixels",
                         "Save it smaller, or in parts."};
        out->picture = true;
        out->pixelsWide = size.width(), out->pixelsHigh = size.height();
    } else {
        auto drawing = readDxf(file, keep);
        if (!drawing) return drawing.error();
        out->drawing = std::move(*drawing);
    }
    out->stamp = stampOf(file);
    return std::shared_ptr<const UnderlayContent>(std::move(out));
}

} // namespace lintel

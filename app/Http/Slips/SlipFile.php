<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Store\Records\RecordEvents;
use Illuminate\Http\UploadedFile;
use Symfony\Component\Mime\MimeTypes;
use VividLedger\Words\Words;

/** Whether a file that somebody outside sends can be taken: what its name says is what it is. */
final class SlipFile
{
    /** What can be told from its first bytes, so that a wrong name shows. */
    private const TOLD = '#^(image|audio|video)/|^application/pdf$#';

    /** @return ?string what is wrong with it; null for nothing */
    public static function trouble(UploadedFile $file): ?string
    {
        if (! $file->isValid()) {
            return $file->getError() === UPLOAD_ERR_INI_SIZE ? RecordEvents::tooLarge() : Words::say(
                'The file did not arrive whole. Send it again.',
            );
        }
        if ((int) $file->getSize() > RecordEvents::fileBytes()) {
            return RecordEvents::tooLarge();
        }
        $named = MimeTypes::getDefault()->getMimeTypes(strtolower($file->getClientOriginalExtension()));
        $is = (string) $file->getMimeType();
        $isTold = array_filter($named, static fn (string $type): bool => preg_match(self::TOLD, $type) === 1) !== [];

        return $isTold && ! in_array($is, $named, true) ? Words::say(
            'This file is not what its name says. Send the file itself, or rename it.',
        ) : null;
    }
}

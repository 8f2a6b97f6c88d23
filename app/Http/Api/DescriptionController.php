<?php

declare(strict_types=1);

namespace App\Http\Api;

use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** The description of this interface, for the page that shows it and for programs that are made from it. */
final class DescriptionController extends Controller
{
    public function show(): BinaryFileResponse
    {
        return response()->file(base_path('docs/openapi.json'), ['Content-Type' => 'application/vnd.oai.openapi+json'])
            ->setAutoEtag();
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Http\Describe\Controller;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;

/** The description of this interface, for the page that shows it and for programs that are made from it. */
final class DescriptionController extends Controller
{
    #[
        OA\Get(
            path: '/api/openapi.json',
            operationId: 'description',
            description: 'This description, in OpenAPI.',
            tags: ['session'],
            responses: [new OA\Response(response: 200, description: 'The description.', content: new OA\JsonContent(type: 'object'))],
        ),
    ]
    public function show(): Response
    {
        return response((string) file_get_contents(base_path('docs/openapi.json')), 200, ['Content-Type' => 'application/json']);
    }
}

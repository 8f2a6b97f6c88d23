<?php

declare(strict_types=1);

namespace App\Http\Api\Describe;

use OpenApi\Analysis;
use OpenApi\Annotations as OA;
use OpenApi\Attributes\PathParameter;
use OpenApi\Attributes\Response;
use OpenApi\Generator;

/** Fills in what holds for every operation and shape, so that no controller has to repeat it. */
final class FillIn
{
    /** Names in a path that stand for numbers. */
    private const NUMBERS = ['id', 'number'];

    public function __invoke(Analysis $analysis): void
    {
        foreach ($analysis->openapi->components->schemas ?? [] as $schema) {
            $properties = $schema->properties === Generator::UNDEFINED ? [] : $schema->properties;
            // What the server answers is always whole; what may be missing is said with null.
            if ($properties !== []) {
                $schema->required = array_map(static fn (OA\Property $property): string => $property->property, $properties);
            }
        }
        foreach ($analysis->getAnnotationsOfType(OA\Operation::class) as $operation) {
            $this->pathParameters($operation);
            $operation->responses = [...$operation->responses, new Response(response: 'default', ref: '#/components/responses/Problem', description: '')];
        }
    }

    private function pathParameters(OA\Operation $operation): void
    {
        preg_match_all('/\{(\w+)\}/', $operation->path, $found);
        $parameters = $operation->parameters === Generator::UNDEFINED ? [] : $operation->parameters;
        foreach ($found[1] as $name) {
            $parameters[] = new PathParameter(name: $name, required: true, schema: new \OpenApi\Attributes\Schema(type: in_array($name, self::NUMBERS, true) ? 'integer' : 'string'));
        }
        if ($parameters !== []) {
            $operation->parameters = $parameters;
        }
    }
}

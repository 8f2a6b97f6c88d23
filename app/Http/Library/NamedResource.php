<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Describe\SaysObjects;
use App\Http\Writing\ReadingResource;
use OpenApi\Attributes as OA;

/** A condition kept under a name. */
#[OA\Schema]
final readonly class NamedResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $file
     * @param  list<string>  $rules
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $version,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $file,
        #[OA\Property]
        public ReadingResource $reading,
        #[OA\Property]
        public ?int $matching,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $rules,
    ) {
    }
}

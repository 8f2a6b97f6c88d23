<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use App\Http\Setup\StartResource;
use OpenApi\Attributes as OA;

/** An address to which another system posts JSON, and how that becomes a record. */
#[OA\Schema]
final readonly class HookResource
{
    /**
     * @param  list<TakenResource>  $takes
     * @param  list<StartResource>  $starts
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public string $url,
        #[OA\Property(description: 'What is posted is signed with it (Standard Webhooks). It is told once, when it is made.')]
        public ?string $secret,
        #[OA\Property]
        public string $recordType,
        #[OA\Property(items: new OA\Items(ref: TakenResource::class))]
        public array $takes,
        #[OA\Property(description: 'What a record that is made has besides.', items: new OA\Items(ref: StartResource::class))]
        public array $starts,
        #[OA\Property(description: 'The field by which a record that is there already is found.')]
        public ?string $knownBy,
        #[OA\Property]
        public bool $mayCreate,
        #[OA\Property]
        public bool $isOpen,
        #[OA\Property(description: 'How often something came that was not signed, or too late.')]
        public int $turnedAway,
        #[OA\Property]
        public ?string $turnedAwayAt,
        #[OA\Property(description: 'How many of what arrived could not be taken.')]
        public int $refused,
    ) {
    }
}

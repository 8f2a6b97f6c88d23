<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Setup\StarterSetResource;
use OpenApi\Attributes as OA;

/** What a link lets somebody do. */
#[OA\Schema]
final readonly class WelcomeResource
{
    /**
     * @param  list<StarterSetResource>  $sets
     * @param  list<string>  $timeZones
     */
    public function __construct(
        #[OA\Property(description: 'To open a company, to come in for the first time, or to choose another password.', enum: [
            'begin', 'invite', 'reset',
        ])]
        public string $kind,
        #[OA\Property(description: 'Whose link it is; empty where there is nobody yet.')]
        public string $name,
        #[OA\Property]
        public string $email,
        #[OA\Property]
        public string $company,
        #[OA\Property(description: 'What a new company can start with.', items: new OA\Items(type: StarterSetResource::class))]
        public array $sets,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $timeZones,
        #[OA\Property(description: 'A password has at least so many characters.')]
        public int $least,
    ) {
    }
}

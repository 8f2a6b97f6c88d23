<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Http\Rules\ProblemResource;
use OpenApi\Attributes as OA;

/** What a setup would change here, or has changed, and what stands against it. */
#[OA\Schema]
final readonly class SetupPlanResource
{
    /**
     * @param  list<SetupChangeResource>  $changes
     * @param  list<ProblemResource>  $problems
     * @param  list<string>  $besides
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: SetupChangeResource::class))]
        public array $changes,
        #[OA\Property(items: new OA\Items(type: ProblemResource::class))]
        public array $problems,
        #[OA\Property(description: 'So many files say what is so already.')]
        public int $same,
        #[OA\Property(description: 'What is here and not in the setup; it stays.', items: new OA\Items(type: 'string'))]
        public array $besides,
    ) {
    }
}

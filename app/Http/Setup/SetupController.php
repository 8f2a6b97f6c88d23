<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Evidence\Setup\SetupChange;
use App\Evidence\Setup\SetupFolder;
use App\Evidence\Setup\SetupPlan;
use App\Evidence\Setup\Setups;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Rules\ProblemResource;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** The setup of the company as one archive: taken out, compared, brought in. */
final class SetupController extends Controller
{
    public function __construct(private readonly Setups $setups)
    {
    }

    #[OA\Get(path: '/api/setup', operationId: 'setup', description: 'All that is set up, as a ZIP archive of JSON files that fit '
        .'docs/schema.', tags: ['company'], responses: [new OA\Response(response: 200, description: 'A ZIP archive.',
            content: new OA\MediaType(mediaType: 'application/zip', schema: new OA\Schema(type: 'string', format: 'binary')))])]
    public function show(): Response
    {
        return response(SetupFolder::pack($this->setups->export()), 200, [
            'Content-Type' => 'application/zip', 'Content-Disposition' => 'attachment; filename="setup.zip"',
            'Cache-Control' => 'private, no-store', 'X-Content-Type-Options' => 'nosniff',
        ]);
    }

    #[OA\Post(path: '/api/setup/plan', operationId: 'planSetup', description: 'What bringing an archive in would change, and what stands '
        .'against it. Nothing changes. Multipart, the archive under the name "file"; with "despite", proofs need not hold.',
        tags: ['company'], responses: [new Ok(SetupPlanResource::class)])]
    public function plan(Request $request): SetupPlanResource
    {
        return self::resource($this->setups->plan(self::given($request), $this->person($request)->id, $request->boolean('despite')));
    }

    #[OA\Post(path: '/api/setup/apply', operationId: 'applySetup', description: 'Brings an archive in, all of it or nothing. Multipart, as '
        .'for a plan.', tags: ['company'], responses: [new Ok(SetupPlanResource::class)])]
    public function apply(Request $request): SetupPlanResource
    {
        return self::resource($this->setups->apply(self::given($request), $this->person($request)->id, $request->boolean('despite')));
    }

    /** @return array<string, string> */
    private static function given(Request $request): array
    {
        $file = $request->file('file');
        if (! $file instanceof UploadedFile || ! $file->isValid()) {
            throw new DomainError('invalid_values', Words::say('Choose the archive of a setup.'), RefusedFor::Invalid, [
                ['at' => '/file', 'code' => 'missing', 'message' => Words::say('Choose the archive of a setup.')],
            ]);
        }

        return SetupFolder::unpack($file->getPathname());
    }

    private static function resource(SetupPlan $plan): SetupPlanResource
    {
        return new SetupPlanResource(
            array_map(static fn (SetupChange $change): SetupChangeResource => new SetupChangeResource(
                $change->path, $change->name, $change->isNew, $change->said,
            ), $plan->changes),
            array_map(static fn (array $problem): ProblemResource => new ProblemResource(...$problem), $plan->problems),
            $plan->same,
            $plan->besides,
        );
    }
}

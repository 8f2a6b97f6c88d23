<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Store\Slips\SlipService;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** Reply slips that were sent: where they stand, and what can be done about them by hand. */
final class SlipController extends Controller
{
    public function __construct(private readonly Slips $slips, private readonly SlipService $desk)
    {
    }

    #[OA\Get(path: '/api/slips', operationId: 'slips', description: 'Reply slips, the latest first: those that wait for whoever asks, '
        .'all that wait, or all.', tags: ['slips'], responses: [new Ok(SlipPage::class)])]
    public function index(SlipListInput $request): SlipPage
    {
        $given = $request->validated();
        $me = $this->person($request);
        $box = $given['box'] ?? 'mine';

        return new SlipPage(
            $this->slips->listed($box, $me, self::number($given, 'limit') ?? 100),
            $this->slips->count($box, $me),
            $this->slips->count('mine', $me),
        );
    }

    #[OA\Get(path: '/api/records/{type}/{id}/slips', operationId: 'slipsOfRecord', description: 'The slips about a record, the latest '
        .'first.', tags: ['slips'], responses: [new Ok(SlipResource::class, list: true)])]
    public function ofRecord(string $type, int $id, Request $request): JsonResponse
    {
        return new JsonResponse($this->slips->ofRecord($this->type($type)->name, $id, $this->person($request)));
    }

    #[OA\Post(path: '/api/slips/{id}/pass-on', operationId: 'passSlipOn', description: 'Passes it on to the next in its list now.',
        tags: ['slips'], responses: [new Ok(SlipResource::class)])]
    public function passOn(int $id, Request $request): SlipResource
    {
        $me = $this->person($request);

        return $this->slips->one($this->desk->passOn($id, $me->id), $me);
    }

    #[OA\Post(path: '/api/slips/{id}/again', operationId: 'sendSlipAgain', description: 'Sends it again with a new link; the one sent '
        .'before is void.', tags: ['slips'], responses: [new Ok(SlipResource::class)])]
    public function again(int $id, Request $request): SlipResource
    {
        $me = $this->person($request);

        return $this->slips->one($this->desk->again($id, $me->id), $me);
    }

    #[OA\Post(path: '/api/slips/{id}/withdraw', operationId: 'withdrawSlip', description: 'Withdraws it: nobody can answer any more.',
        tags: ['slips'], responses: [new Ok(SlipResource::class)])]
    public function withdraw(int $id, Request $request): SlipResource
    {
        $me = $this->person($request);

        return $this->slips->one($this->desk->withdraw($id, $me->id), $me);
    }
}

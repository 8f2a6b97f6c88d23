<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class MessagesInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'status' => 'nullable|in:waiting,delivered,failed,all', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before', 'limit' => 'nullable|integer|min:1|max:200',
        ];
    }

    public function meant(): array
    {
        return [
            'status' => 'Left out, failed ones.',
            'before' => 'Only messages with a lower id.',
            'after' => 'Only messages with a higher id, the lowest first.',
            'limit' => 'At most so many, up to 200.',
        ];
    }
}

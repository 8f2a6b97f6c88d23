<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use Illuminate\Foundation\Http\FormRequest;

final class SignOffTalkInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'question' => 'nullable|string|max:2000', 'answer' => 'nullable|string|max:2000', 'reason' => 'nullable|string|max:500',
            'place' => 'nullable|integer|min:0|max:1000',
        ];
    }
}

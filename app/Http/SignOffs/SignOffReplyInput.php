<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use Illuminate\Foundation\Http\FormRequest;

final class SignOffReplyInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'place' => 'required|integer|min:0|max:1000', 'answer' => 'present|nullable|string|max:2000',
        ];
    }
}

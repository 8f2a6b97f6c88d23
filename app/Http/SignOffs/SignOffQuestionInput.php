<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use Illuminate\Foundation\Http\FormRequest;

final class SignOffQuestionInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'question' => 'present|nullable|string|max:2000',
        ];
    }
}

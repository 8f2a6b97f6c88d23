<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class SignOffListInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['box' => 'nullable|in:waiting,asked,decided,all', 'limit' => 'nullable|integer|min:1|max:500'];
    }

    public function meant(): array
    {
        return [
            'box' => 'Left out, what waits for oneself.',
            'limit' => 'At most so many, up to 500.',
        ];
    }
}

import { describe, expect, it } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { answerWith, renderAt } from '../../testing/page';
import { CodesForm } from './CodesForm';
import { SignIn } from './SignIn';

const hand = userEvent.setup();
const refusal = (status: number, body: object) => () => new Response(JSON.stringify(body), { status });
const passcode = () => screen.getByLabelText<HTMLInputElement>('Passcode');
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });

describe('the shop’s door', () => {
  it('takes a passcode, and nothing of none', async () => {
    const asked = answerWith({ 'POST /api/session': { kind: 'open' } });
    renderAt('/', <SignIn />);
    expect(button('Sign in').disabled).toBe(true);
    await hand.type(passcode(), '  ');
    expect(button('Sign in').disabled).toBe(true);
    await hand.clear(passcode());
    await hand.type(passcode(), 'lantern-12{Enter}');
    await waitFor(() => expect(asked.some((a) => a.path === 'POST /api/session')).toBe(true));
    expect(asked.find((a) => a.path === 'POST /api/session')!.body).toEqual({ passcode: 'lantern-12' });
  });

  it('says at the field that it was the wrong one, and keeps what was typed out of sight', async () => {
    answerWith({
      'POST /api/session': refusal(401, {
        ...{
          code: 'wrongCode',
          message: 'That is not the passcode.',
          fields: { passcode: 'That is not the passcode.' },
        },
      }),
    });
    renderAt('/', <SignIn />);
    await hand.type(passcode(), 'guess{Enter}');
    expect(await screen.findByText('That is not the passcode.')).toBeTruthy();
    expect(passcode().getAttribute('aria-invalid')).toBe('true');
    expect([passcode().type, passcode().value]).toEqual(['password', 'guess']);
  });

  it('says that it has to be waited after too many', async () => {
    answerWith({ 'POST /api/session': refusal(429, { code: 'tooMany', message: 'Wait a minute, then try again.' }) });
    renderAt('/', <SignIn />);
    await hand.type(passcode(), 'guess{Enter}');
    expect(await screen.findByText('Wait a minute, then try again.')).toBeTruthy();
  });
});

describe('the shop’s codes', () => {
  const place = () => new Response('{}', { status: 200 });

  it('a passcode that is too short is said before it is sent', async () => {
    const asked = answerWith({ 'PUT /api/shop/codes': place });
    renderAt('/', <CodesForm isPasscodeSet={false} isLookCodeSet={false} />);
    const field = screen.getByLabelText<HTMLInputElement>('Passcode of the shop');
    await hand.type(field, 'ab{Enter}');
    await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'));
    expect(asked).toEqual([]);
    expect(field.value).toBe('ab');
  });

  it('each is kept by itself, and its field is empty then', async () => {
    const asked = answerWith({ 'PUT /api/shop/codes': place, 'GET /api/shop': {} });
    renderAt('/', <CodesForm isPasscodeSet isLookCodeSet={false} />);
    const look = screen.getByLabelText<HTMLInputElement>('Code for looking only');
    await hand.type(look, 'wall-screen{Enter}');
    await waitFor(() => expect(look.value).toBe(''));
    expect(asked[0]).toEqual({ path: 'PUT /api/shop/codes', body: { lookCode: 'wall-screen' } });
    expect(await screen.findByText('It is set.')).toBeTruthy();
    // A passcode is changed, not set, once there is one; the code for looking can be taken away only where it is.
    expect(screen.getByLabelText('New passcode')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Take it away' })).toBeNull();
  });

  it('the one for looking only is taken away', async () => {
    const asked = answerWith({ 'PUT /api/shop/codes': place });
    renderAt('/', <CodesForm isPasscodeSet isLookCodeSet />);
    await hand.click(button('Take it away'));
    await waitFor(() => expect(asked[0]?.body).toEqual({ lookCode: null }));
  });

  it('what the server refuses stands at the field', async () => {
    answerWith({
      'PUT /api/shop/codes': refusal(400, {
        ...{ code: 'badRequest', message: 'Look at the fields.', fields: { lookCode: 'It can’t be the passcode.' } },
      }),
    });
    renderAt('/', <CodesForm isPasscodeSet isLookCodeSet={false} />);
    await hand.type(screen.getByLabelText('Code for looking only'), 'lantern-12{Enter}');
    expect(await screen.findByText('It can’t be the passcode.')).toBeTruthy();
  });
});

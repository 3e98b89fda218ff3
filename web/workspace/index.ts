export { FormZone } from './FormZone.tsx'
export { SetUpScreen } from './SetUpScreen.tsx'
export { SignInScreen } from './SignInScreen.tsx'

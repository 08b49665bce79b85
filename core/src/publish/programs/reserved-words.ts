/** Words of one text. */
function words(text: string): ReadonlySet<string> {
  return new Set(text.split(/\s+/).map((word) => word.toLowerCase()));
}

/** Words that every program uses itself, whatever its language. */
export const USED =
  words(`t h n y v d e j i t_start t_end steps exact step first_step keep advance begin row main set_up steps_for stepsfor stop error
  order length quotient last last_h last_error error_at order_of orderof digits text_of values line text round column matrix right before reach moved scale
  solve eliminate fail run state next rows row prints unused check print_all total point points plot plt f_moved a_moved ok sign mod floor cbrt sign_of whole_below remainder log_2 cube_root dp status argc argv sys math`);

/** Words of C99, and names of its library. */
export const C_WORDS =
  words(`auto break case char const continue default do double else enum extern float for goto if inline int long
  register restrict return short signed sizeof static struct switch typedef union unsigned void volatile while asm bool complex
  imaginary
  acos acosh asin asinh atan atan2 atanh cbrt ceil copysign cos cosh drem erf erfc exp exp10 exp2 expm1 fabs fdim floor fma fmax fmin
  fmod frexp gamma hypot ilogb isfinite isgreater isinf isless isnan isnormal j0 j1 jn ldexp lgamma llrint llround log log10 log1p log2
  logb lrint lround modf nan nearbyint nextafter nexttoward pow pow10 remainder remquo rint round scalb scalbln scalbn significand
  signbit sin sincos sinh sqrt tan tanh tgamma trunc y0 y1 yn huge_val infinity
  abort abs atexit atof atoi atol bsearch calloc div exit free getenv labs malloc mblen qsort rand realloc srand strtod strtol system
  clearerr eof fclose feof ferror fflush fgetc fgets fopen fprintf fputc fputs fread freopen fscanf fseek ftell fwrite getc getchar
  gets perror printf putc putchar puts remove rename rewind scanf setbuf snprintf sprintf sscanf stderr stdin stdout tmpfile ungetc
  vprintf null size_t index ffs bcmp bcopy bzero memcpy memset strlen strcpy isalpha isdigit tolower toupper alloca`);

/** Words of Fortran 2008, and its intrinsic procedures. */
export const FORTRAN_WORDS =
  words(`program end subroutine function contains implicit none real integer logical character parameter call use module
  allocate allocatable if then else do while exit cycle return stop print read write format open close intent in out inout pure
  recursive interface type class select case where forall data save dimension external intrinsic
  abs acos acosh adjustl adjustr aimag aint all anint any asin asinh atan atan2 atanh bessel_j0 bessel_j1 bessel_jn bessel_y0
  bessel_y1 bessel_yn ceiling char cmplx command_argument_count conjg cos cosh count cpu_time dble digits dim dot_product dprod epsilon
  erf erfc erfc_scaled exp exponent floor fraction gamma get_command_argument huge hypot iachar ichar index int kind len len_trim log
  log10 log_gamma matmul max maxexponent maxloc maxval merge min minexponent minloc minval mod modulo nearest nint norm2 not precision
  present product radix random_number random_seed range repeat reshape rrspacing scale scan selected_int_kind selected_real_kind
  set_exponent shape sign sin sinh size spacing spread sqrt sum system_clock tan tanh tiny transfer transpose trim ubound lbound unpack
  verify error_stop`);

/** Words of JavaScript, and global names of Node. */
export const JAVASCRIPT_WORDS =
  words(`abstract arguments await break case catch class const continue debugger default delete do else enum eval export
  extends false finally for function if implements import in instanceof interface let new null package private protected public return
  static super switch this throw true try typeof var void while with yield async of
  array arraybuffer bigint boolean buffer console date error exports float64array globalthis infinity json map math module nan
  number object process promise proxy reflect regexp require set string symbol undefined weakmap sizes errorat __dirname __filename`);

/** Words of Python 3, and its built-in names. */
export const PYTHON_WORDS =
  words(`and as assert async await break class continue def del elif else except false finally for from global if
  import in is lambda match none nonlocal not or pass raise return true try while with yield
  abs aiter all anext any ascii bin bool breakpoint bytearray bytes callable chr classmethod compile complex copyright credits
  delattr dict dir divmod enumerate eval exec exit filter float format frozenset getattr globals hasattr hash help hex id input int
  isinstance issubclass iter len license list locals map max memoryview min next object oct open ord pow print property quit range
  repr reversed set setattr slice sorted staticmethod str sum super tuple type vars zip
  arithmeticerror valueerror exception`);

/** Words of MATLAB and Octave, and names of their libraries that a program calls or that surprise where they are others. */
export const MATLAB_WORDS =
  words(`break case catch classdef continue else elseif end endif endfor endfunction endwhile for function global if otherwise parfor
  persistent return spmd switch try while do until unwind_protect end_try_catch endswitch
  p pi e eps inf nan na i j ans abs acos acosh all any asin asinh atan atan2 atanh axis ceil cellfun clear cos cosh diff disp display
  double error exp eye false figure fix floor fprintf getfield hold hypot isempty isfinite isnan isreal length linspace log log10 log2
  max min mod norm nnz nthroot num2str numel ones plot printf rand real_only realpow reallog realsqrt rem round set sign sin sinh size
  sort sprintf sqrt std sum tan tanh tic toc true varargin varargout nargin nargout var warning xlabel ylabel zeros pick modulo
  parameters gamma beta erf program print_rows`);

/** Words of Julia, and names of its base library that a program calls. */
export const JULIA_WORDS =
  words(`baremodule begin break catch const continue do else elseif end export false finally for function global if import let
  local macro module quote return struct true try using while where in isa abstract mutable primitive type outer
  abs acos acosh all any args asin asinh atan atanh base cbrt ceil cos cosh error eachindex exp exit first float float64 floor im inf
  isfinite isnan last length log log10 log2 main max min mod nan nothing parse pi print println push! rem round sign sin sinh sqrt
  string sum tan tanh tuple typeof vector zeros pick modulo printf program_file stderr collect copy fill map range split join`);
